#pragma once
#include "solve/audit.h"

#include <QFrame>
#include <QLabel>
#include <optional>

class QPushButton;

namespace butte::app {

class FormulaEditor;
class MendFinder;
class UnitsShown;

/// What limits the formula, in plain words: why elements are off their band, what the water, the solver and
/// the tanks have to say. Never hides the first trouble behind the last.
class ReasonStrip : public QFrame {
  Q_OBJECT

public:
  ReasonStrip(FormulaEditor& editor, MendFinder& finder, UnitsShown& units, QWidget* parent = nullptr);
  QString text() const { return m_text->text(); }

private:
  void refresh();
  QWidget* makeSlipRow();
  std::optional<core::SuspectLine> suspect() const;
  QString inRow(core::Mass mass, bool exact) const;
  void refreshSlip();
  void takeWhatFits();
  FormulaEditor& m_editor;
  UnitsShown& m_units;
  QWidget* m_slipRow;
  QLabel* m_slip;
  QPushButton* m_take;
  QLabel* m_text;
  QWidget* m_mends;
};

} // namespace butte::app
