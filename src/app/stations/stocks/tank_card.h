#pragma once
#include "stations/stocks/tank_items.h"

#include "measures.h"

#include <QFrame>

class QLabel;
class QLineEdit;
class QToolButton;

namespace butte::core {
struct TankContent;
}

namespace butte::app {

class FormulaEditor;
class NumberField;
class UnitsShown;
class VesselPicture;

/// One tank: its letter and what it holds in words, drawn to its volume with the salts in layers, the salts
/// as rows, how strong it may be, and what is wrong with it.
class TankCard : public QFrame {
  Q_OBJECT

public:
  TankCard(FormulaEditor& editor, UnitsShown& units, std::size_t index, QWidget* parent = nullptr);
  void refresh();
  /// While something is dragged over it.
  void setAim(bool aimed);
  TankItems* items() const { return m_items; }

signals:
  void message(const QString& words);

private:
  void takeAway();
  QWidget* makeHead();
  void fillMenu();
  std::vector<TankItems::Row> rows(const core::TankContent& content) const;
  QString contentsText(const core::TankContent& content) const;
  QString ceilingText(const core::TankContent& content, bool& trouble) const;
  QString madeText(const core::TankContent& content) const;
  QString limitingName(const core::TankContent& content) const;
  QString fallenText(const core::TankContent& content) const;

  FormulaEditor& m_editor;
  UnitsShown& m_units;
  std::size_t m_index;
  QLineEdit* m_name = nullptr;
  QLabel *m_title = nullptr, *m_contents = nullptr, *m_ceiling = nullptr, *m_volumeUnit = nullptr,
         *m_made = nullptr;
  NumberField *m_volume = nullptr, *m_ratio = nullptr;
  QToolButton* m_menu = nullptr;
  VesselPicture* m_picture = nullptr;
  TankItems* m_items = nullptr;
  std::string m_vesselUnit;  ///< what its volume is in
  words::Measures m_shownIn; ///< what was chosen then
};

} // namespace butte::app
