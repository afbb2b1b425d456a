#pragma once
#include "document/background.h"
#include "document/overlay.h"
#include "solve/mends.h"

#include <QTimer>
#include <vector>

namespace butte::app {

class FormulaEditor;

/// A change that would help, ready to be looked at and taken.
struct OfferedMend {
  QString words, effect;
  core::Mend mend;
  std::vector<std::string> products; ///< to put on the shelf: one, or all that should be bought
};

/// Looks for mends behind the window once the typing rests; what it offers always belongs to the formula as
/// it stands.
class MendFinder : public QObject {
  Q_OBJECT
public:
  explicit MendFinder(FormulaEditor& editor, QObject* parent = nullptr);

  const std::vector<OfferedMend>& offers() const { return m_offers; }
  bool isSearching() const { return m_rest.isActive() || m_background.isBusy(); }
  /// Lays the result over the formula; -1 takes it off again.
  void preview(int index);
  int previewed() const { return m_previewed; }
  void take(int index);

signals:
  void changed();

private:
  void formulaChanged();
  void search();

  FormulaEditor& m_editor;
  Background m_background;
  QTimer m_rest;
  std::vector<OfferedMend> m_offers;
  std::vector<core::WaterOption> m_waters;
  int m_previewed = -1;
};

} // namespace butte::app
