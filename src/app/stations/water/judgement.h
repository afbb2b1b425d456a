#pragma once
#include "water/examine.h"

#include <QWidget>
#include <optional>
#include <utility>
#include <vector>

class QComboBox;
class QLabel;
class QVBoxLayout;

namespace butte::app {

class FormulaEditor;
class UnitsShown;
class VerdictScales;

/// Whether a report can be right, other ways to read it (offered, never done by itself), and what the water
/// is good for.
class Judgement : public QWidget {
  Q_OBJECT

public:
  Judgement(FormulaEditor& editor, UnitsShown& units, QWidget* parent = nullptr);
  void show(std::size_t part);

signals:
  void message(const QString& words);

private:
  void showDoubts();
  void showOffers(const std::vector<core::Rereading>& ways);
  void showVerdicts();
  void offer(const core::Rereading& way);
  FormulaEditor& m_editor;
  UnitsShown& m_units;
  std::size_t m_part = 0;
  QLabel *m_doubts, *m_verdicts;
  VerdictScales* m_scales;
  QWidget* m_offers = nullptr;
  std::optional<std::pair<std::size_t, core::TypedReport>>
      m_offersOf; ///< part, and its report when they were made
  QVBoxLayout* m_offerPlace;
  QComboBox *m_system, *m_watering;
};

} // namespace butte::app
