#pragma once
#include "stock/stock.h"

#include <QWidget>

namespace butte::app {

class FormulaEditor;

/// A stock tank as a vessel: its salts in layers, by weight, and how near the tank is to what dissolves.
class TankPicture : public QWidget {
  Q_OBJECT

public:
  TankPicture(FormulaEditor& editor, int tank, QWidget* parent = nullptr);
  QSize sizeHint() const override { return {96, 130}; }

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  FormulaEditor& m_editor;
  std::size_t m_tank;
};

} // namespace butte::app
