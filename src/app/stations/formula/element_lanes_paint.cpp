#include "stations/formula/element_lanes.h"

#include "document/formula_editor.h"
#include "document/product_looks.h"
#include "paint/fitted_text.h"
#include "paint/hatch.h"
#include "paint/line_of_text.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "wording/tr.h"
#include "words.h"

#include <QLocale>
#include <QPaintEvent>
#include <QPainter>
#include <cmath>

namespace butte::app {

/// As fine as a feed can be weighed and read: tenths of a mg/L, hundredths below 2, thousandths below 0.1.
QString ElementLanes::figureText(double milligramsPerLitre) {
  if (milligramsPerLitre >= 99.95) return localNumber(milligramsPerLitre, 0);
  if (milligramsPerLitre >= 2) return localNumber(milligramsPerLitre, 1);
  return localNumber(milligramsPerLitre, milligramsPerLitre >= 0.0995 ? 2 : 3);
}

QString ElementLanes::headWords() const {
  return m_editor.overlay() ? tr("dashed: %1").arg(m_editor.overlay()->name)
                            : tr("the mark is the target · shares of the water and each product");
}

QString ElementLanes::wantedWords(const Lane& lane) const {
  return lane.target ? tr("of %1").arg(QLocale().toString(lane.target->milligramsPerLitre, 'g', 4))
                     : tr("no target");
}

void ElementLanes::paintEvent(QPaintEvent* event) {
  layOut();
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing, false);
  paintHead(painter);
  for (const auto& lane : m_lanes) {
    if (event->region().intersects(roomOf(lane))) paintLane(painter, lane);
  }
}

void ElementLanes::paintHead(QPainter& painter) const {
  if (m_lanes.empty() || m_lanes.front().small) return;
  const auto& box = m_lanes.front().box;
  painter.setPen(theme().inkSoft);
  painter.setFont(faceOf(11));
  paintLine(painter, QRectF(box.left(), 0, box.width(), 15), Qt::AlignVCenter,
            fittedText(painter.fontMetrics(), headWords(), static_cast<int>(box.width())));
  paintLine(painter, QRectF(box.right() + 8, 0, 124, 15), Qt::AlignVCenter, tr("element, mg/L"));
}

void ElementLanes::paintLane(QPainter& painter, const Lane& lane) const {
  const auto& t = theme();
  const bool focused = hasFocus() && &lane == &m_lanes[m_focused];
  painter.fillRect(lane.box, t.card);
  const auto name = QString::fromStdString(words::nutrientSymbol(lane.nutrient));
  painter.setPen(t.ink);
  painter.setFont(faceOf(lane.small ? 12 : 14, true));
  if (!lane.small)
    paintLine(painter, QRectF(0, lane.box.top(), 56, lane.box.height()), Qt::AlignVCenter, name);
  paintBar(painter, lane);
  paintFigures(painter, lane);
  painter.setPen(QPen(focused ? t.amber : t.line, focused ? 2 : 1));
  painter.setBrush(Qt::NoBrush);
  painter.drawRect(lane.box.adjusted(0, 0, -1, -1));
}

void ElementLanes::paintBar(QPainter& painter, const Lane& lane) const {
  const auto& t = theme();
  const QRectF bar = lane.small ? QRectF(lane.box.left(), lane.box.bottom() - 14, lane.box.width(), 13)
                                : lane.box.adjusted(0, 4, 0, -4);
  if (lane.target) {
    const double from = xOf(lane, std::max(0.0, lane.target->bandLow())),
                 to = xOf(lane, lane.target->bandHigh());
    painter.fillRect(QRectF(from, lane.small ? bar.top() : lane.box.top(), std::max(2.0, to - from),
                            lane.small ? bar.height() : lane.box.height()),
                     t.band);
  }
  double sum = 0;
  for (const auto& share : lane.shares) {
    const double from = xOf(lane, sum), to = xOf(lane, sum += share.milligramsPerLitre);
    if (to - from < 0.2) continue;
    const QRectF area(from, bar.top(), to - from, bar.height());
    painter.setOpacity(m_lit.empty() || m_lit == share.product ? 1.0 : 0.25);
    if (share.product.empty())
      fillAsWater(painter, area);
    else
      fillAs(painter, area, lookIn(m_editor.document(), share.product));
    painter.setPen(QPen(t.card, 1));
    painter.drawLine(area.topRight(), area.bottomRight());
  }
  painter.setOpacity(1);
  if (lane.target) {
    const double x = xOf(lane, lane.target->milligramsPerLitre);
    painter.fillRect(QRectF(x - 1, lane.small ? bar.top() - 2 : lane.box.top(), 2.5,
                            lane.small ? bar.height() + 2 : lane.box.height()),
                     t.targetMark);
    if (!lane.small) painter.fillRect(QRectF(x - 4, lane.box.top(), 8.5, 4), t.targetMark);
  }
  paintWhisker(painter, lane, bar);
  paintOverlay(painter, lane);
  if (sum > lane.scaleMax * 1.0001) { // runs out of the lane: an arrow, since its true length can't be shown
    painter.setBrush(t.red);
    painter.setPen(Qt::NoPen);
    const double x = lane.box.right() - 1, y = bar.center().y();
    painter.drawPolygon(QPolygonF{{x - 9, y - 6}, {x, y}, {x - 9, y + 6}});
  }
}

/// The formula laid over: a notched outline where its sum would end.
void ElementLanes::paintOverlay(QPainter& painter, const Lane& lane) const {
  if (!lane.overlay) return;
  const double x = xOf(lane, *lane.overlay);
  const double top = lane.small ? lane.box.bottom() - 16 : lane.box.top() + 1, foot = lane.box.bottom() - 2;
  painter.setPen(QPen(theme().accent, 2, Qt::DashLine));
  painter.drawLine(QPointF(x, top), QPointF(x, foot));
  painter.setPen(Qt::NoPen);
  painter.setBrush(theme().accent);
  painter.drawPolygon(QPolygonF{{x - 5, foot + 1}, {x + 5, foot + 1}, {x, foot - 6}});
}

/// How far the sum may be off.
void ElementLanes::paintWhisker(QPainter& painter, const Lane& lane, const QRectF& bar) const {
  const double from = xOf(lane, std::max(0.0, lane.result - lane.plusMinus)),
               to = xOf(lane, std::min(lane.scaleMax, lane.result + lane.plusMinus)), y = bar.center().y();
  if (to - from < 4) return;
  for (const auto& [colour, width] : {std::pair{theme().card, 4.0}, std::pair{theme().ink, 1.6}}) {
    painter.setPen(QPen(colour, width));
    painter.drawLine(QPointF(from, y), QPointF(to, y));
    for (const double x : {from, to})
      painter.drawLine(QPointF(x, y - 4), QPointF(x, y + 4));
  }
}

void ElementLanes::paintFigures(QPainter& painter, const Lane& lane) const {
  const auto& t = theme();
  painter.setPen(t.ink);
  if (lane.small) {
    const auto name = QString::fromStdString(words::nutrientSymbol(lane.nutrient));
    painter.setFont(faceOf(12, true));
    const double nameWidth = painter.fontMetrics().horizontalAdvance(name);
    const bool narrow = lane.box.width() < 96;
    const double edge = narrow ? 3 : 6;
    paintLine(painter, lane.box.adjusted(edge, 4, 0, 0), Qt::AlignTop | Qt::AlignLeft, name);
    const bool inside = !lane.target || lane.target->contains(lane.result);
    painter.setPen(lane.harmful ? t.red : inside ? t.ink : t.amber);
    const auto sign = lane.harmful                                    ? QString("⚠ ")
                      : inside                                        ? QString()
                      : lane.result > lane.target->milligramsPerLitre ? QString("▲ ")
                                                                      : QString("▼ ");
    const auto figure = sign + figureText(lane.result);
    painter.setFont(faceOf(12, !inside || lane.harmful));
    if (painter.fontMetrics().horizontalAdvance(figure) + nameWidth + 3 * edge > lane.box.width())
      painter.setFont(faceOf(10, !inside || lane.harmful));
    paintLine(painter, lane.box.adjusted(0, 4, -edge, 0), Qt::AlignTop | Qt::AlignRight, figure);
    return;
  }
  const double left = lane.box.right() + 8;
  painter.setFont(faceOf(17, true));
  paintLine(painter, QRectF(left, lane.box.top(), 56, lane.box.height()), Qt::AlignVCenter | Qt::AlignRight,
            figureText(lane.result));
  painter.setPen(t.inkSoft);
  painter.setFont(faceOf(12));
  paintLine(painter, QRectF(left + 62, lane.box.top(), 68, lane.box.height()), Qt::AlignVCenter,
            wantedWords(lane));
  if (lane.target || lane.harmful)
    paintVerdict(painter, lane, QRectF(left + 126, lane.box.center().y() - 11, 62, 22));
}

void ElementLanes::paintVerdict(QPainter& painter, const Lane& lane, const QRectF& room) const {
  const auto& t = theme();
  painter.setFont(faceOf(12));
  if (lane.harmful) {
    painter.fillRect(room, t.red);
    painter.setPen(t.card);
    painter.setFont(faceOf(12, true));
    paintLine(painter, room, Qt::AlignCenter, tr("⚠ harmful"));
    return;
  }
  if (lane.target->contains(lane.result)) {
    painter.setPen(t.inkSoft);
    paintLine(painter, room, Qt::AlignCenter, tr("in band"));
    return;
  }
  const double off = lane.target->deviationPercent(lane.result);
  painter.setPen(Qt::NoPen);
  painter.setBrush(t.amberFill);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.drawRoundedRect(room, 4, 4);
  painter.setRenderHint(QPainter::Antialiasing, false);
  painter.setPen(t.amberInk);
  painter.setFont(faceOf(12, true));
  const auto figure = std::abs(off) >= 999 ? QString("> 999") : QString::number(std::lround(std::abs(off)));
  paintLine(painter, room, Qt::AlignCenter, QString("%1 %2 %").arg(off > 0 ? "+" : "−", figure));
}

} // namespace butte::app
