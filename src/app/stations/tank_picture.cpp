#include "stations/tank_picture.h"

#include "document/formula_editor.h"
#include "paint/hatch.h"
#include "paint/theme.h"

#include <QPainter>
#include <algorithm>

namespace butte::app {

TankPicture::TankPicture(FormulaEditor& editor, int tank, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_tank(static_cast<std::size_t>(tank)) {
  setFixedWidth(70);
  setMinimumHeight(110);
  connect(&editor, &FormulaEditor::changed, this, qOverload<>(&QWidget::update));
}

void TankPicture::paintEvent(QPaintEvent*) {
  const auto& answer = m_editor.answer();
  if (m_tank >= answer.stock.tanks.size()) return;
  const auto& content = answer.stock.tanks[m_tank];
  const auto& shelf = m_editor.document().given.request.shelf;
  const auto& t = theme();
  QPainter p(this);
  const QRectF inside(5, 4, width() - 12, height() - 10);
  p.fillRect(inside, t.card);
  const double level = inside.top() + inside.height() * 0.1;
  fillAsWater(p, QRectF(inside.left(), level, inside.width(), inside.bottom() - level));
  // Layers by weight: half the vessel is 300 g/L, so that two tanks can be compared by eye.
  double y = inside.bottom();
  const double perGramPerLitre = (inside.bottom() - level) / 600;
  for (const auto& item : content.items) {
    const double h = std::max(item.strength.gramsPerLitre() * perGramPerLitre, 1.5);
    if (y - h < level) break;
    fillAs(p, QRectF(inside.left(), y - h, inside.width(), h), lookOf(shelf[item.product].id));
    y -= h;
  }
  p.setPen(QPen(t.inkSoft, 3));
  p.drawPolyline(QPolygonF{inside.topLeft() - QPointF(1.5, 0), inside.bottomLeft() + QPointF(-1.5, 1.5),
                           inside.bottomRight() + QPointF(1.5, 1.5), inside.topRight() + QPointF(1.5, 0)});
}

} // namespace butte::app
