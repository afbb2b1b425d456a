#pragma once
#include <QWidget>

class QButtonGroup;

namespace butte::app {

class FlowRow;
class FormulaEditor;
struct Prompts;

/// The stages of one crop over the lanes: a press takes one in hand, the others stay as they are.
/// Not there where the formula has no stages.
class StageStrip : public QWidget {
  Q_OBJECT

public:
  StageStrip(FormulaEditor& editor, Prompts& prompts, QWidget* parent = nullptr);
  /// Asks for the name of one more, and of the first where there were none.
  void addStage();

signals:
  void message(const QString& words);
  void cardAsked();

private:
  void refresh();
  void press(int stage);
  void rename(int stage);
  void remove(int stage);
  void showMenu(int stage, const QPoint& at);
  QString refusedName() const;

  FormulaEditor& m_editor;
  Prompts& m_prompts;
  FlowRow* m_row;
  QButtonGroup* m_buttons;
  QWidget* m_rest;
};

} // namespace butte::app
