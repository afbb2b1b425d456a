#pragma once
#include "target/electroneutrality.h"

#include <QWidget>

class QLabel;
class QPushButton;

namespace butte::app {

class FormulaEditor;

/// Whether the target can be dissolved at all: cations against anions, and which ion would have to give.
class TargetBalancePanel : public QWidget {
  Q_OBJECT
public:
  explicit TargetBalancePanel(FormulaEditor& editor, QWidget* parent = nullptr);

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  void refresh();
  void takeNearest();

  FormulaEditor& m_editor;
  core::TargetBalance m_balance;
  QLabel* m_words;
  QPushButton* m_take;
};

} // namespace butte::app
