#include "stations/stocks/vessel_picture.h"

#include "document/formula_editor.h"
#include "document/product_looks.h"
#include "paint/hatch.h"
#include "paint/theme.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

namespace butte::app {

namespace {
constexpr double leastScale = 0.35; // of the largest tank's height: a bottle can still be seen
} // namespace

VesselPicture::VesselPicture(FormulaEditor& editor, std::size_t tank, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_tank(tank) {
  setFixedWidth(64);
  setMinimumHeight(90);
}

void VesselPicture::refresh() {
  constexpr double halfPixel = 2; // g/L: the vessel's height is 600
  Seen seen;
  const auto& shelf = m_editor.document().given.request.shelf;
  for (const auto& tank : m_editor.answer().stock.tanks)
    seen.emplace_back("", std::lround(1000 * tank.tank.volume.litres()));
  if (m_tank < m_editor.answer().stock.tanks.size()) {
    const auto& content = m_editor.answer().stock.tanks[m_tank];
    for (const auto& item : content.items)
      seen.emplace_back(shelf[item.product].id, std::lround(item.strength.gramsPerLitre() / halfPixel));
    for (const auto& fallen : content.fallen)
      seen.emplace_back("", std::lround(100 * fallen.gramsPerLitre));
  }
  if (seen == m_seen) return;
  m_seen = std::move(seen);
  update();
}

void VesselPicture::paintEvent(QPaintEvent*) {
  const auto& tanks = m_editor.answer().stock.tanks;
  if (m_tank >= tanks.size()) return;
  const auto& content = tanks[m_tank];
  const auto& shelf = m_editor.document().given.request.shelf;
  const auto& t = theme();
  double largest = 0;
  for (const auto& other : tanks)
    largest = std::max(largest, other.tank.volume.litres());
  // Same shape for all: height and width go with the cube root of the volume.
  const double scale = std::max(leastScale, std::cbrt(content.tank.volume.litres() / largest));
  QPainter p(this);
  const double h = (height() - 8) * scale, w = (width() - 8) * std::max(0.6, scale);
  const QRectF inside((width() - w) / 2, height() - 4 - h, w, h);
  p.fillRect(inside, t.card);
  const double level = inside.top() + h * 0.08;
  fillAsWater(p, QRectF(inside.left(), level, w, inside.bottom() - level));
  // Half the vessel is 300 g/L, so that two tanks can be compared by eye.
  const double perGramPerLitre = (inside.bottom() - level) / 600;
  double y = inside.bottom();
  for (const auto& item : content.items) {
    const double layer = std::max(item.strength.gramsPerLitre() * perGramPerLitre, 1.5);
    if (y - layer < level) break;
    fillAs(p, QRectF(inside.left(), y - layer, w, layer),
           lookIn(m_editor.document(), shelf[item.product].id));
    y -= layer;
  }
  double sludge = 0;
  for (const auto& fallen : content.fallen)
    sludge += fallen.gramsPerLitre;
  if (sludge > 0.02) {
    const double layer = std::clamp(sludge * perGramPerLitre, 4.0, h / 2);
    const QRectF floor(inside.left(), inside.bottom() - layer, w, layer);
    p.fillRect(floor, t.card);
    p.fillRect(floor, QBrush(t.red, Qt::Dense3Pattern));
  }
  p.setPen(QPen(t.inkSoft, 3));
  p.drawPolyline(QPolygonF{inside.topLeft() - QPointF(1.5, 0), inside.bottomLeft() + QPointF(-1.5, 1.5),
                           inside.bottomRight() + QPointF(1.5, 1.5), inside.topRight() + QPointF(1.5, 0)});
}

} // namespace butte::app
