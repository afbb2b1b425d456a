#pragma once
#include <QFrame>
#include <QLabel>

namespace butte::app {

class FormulaEditor;
class MendFinder;

/// What limits the formula, in plain words: why elements are off their band, what the water, the solver and
/// the tanks have to say. Never hides the first trouble behind the last.
class ReasonStrip : public QFrame {
  Q_OBJECT

public:
  ReasonStrip(FormulaEditor& editor, MendFinder& finder, QWidget* parent = nullptr);
  QString text() const { return m_text->text(); }

private:
  void refresh();
  QStringList suspects() const;
  FormulaEditor& m_editor;
  QLabel* m_text;
  QWidget* m_mends;
};

} // namespace butte::app
