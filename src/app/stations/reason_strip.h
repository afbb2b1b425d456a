#pragma once
#include <QFrame>
#include <QLabel>

namespace butte::app {

class FormulaEditor;

/// What limits the formula, in plain words: why elements are off their band, what the water, the solver and the
/// tanks have to say. Never hides the first trouble behind the last.
class ReasonStrip : public QFrame {
  Q_OBJECT

public:
  explicit ReasonStrip(FormulaEditor& editor, QWidget* parent = nullptr);
  QString text() const { return m_text->text(); }

private:
  void refresh();
  FormulaEditor& m_editor;
  QLabel* m_text;
};

} // namespace butte::app
