#include "stations/stocks/strength_ruler.h"

#include "paint/axes.h"
#include "paint/line_of_text.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "stock_words.h"
#include "wording/tr.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

namespace butte::app {

namespace {
constexpr double thinnest = 10, strongest = 1000; // the ruler's ends; a typed factor may lie beyond
constexpr double side = 14;
constexpr double barTop = 30, barHeight = 14;

/// Steps that a hand wants: 1 up to 100, 5 up to 300, 10 above.
double handy(double factor) {
  const double step = factor < 100 ? 1 : factor < 300 ? 5 : 10;
  return std::max(1.0, std::round(factor / step) * step);
}
} // namespace

StrengthRuler::StrengthRuler(QWidget* parent) : QWidget(parent) {
  setObjectName("strengthRuler");
  setFocusPolicy(Qt::StrongFocus);
  setFixedHeight(64);
  setCursor(Qt::SizeHorCursor);
  setAccessibleName(tr("strength of the stocks"));
  setToolTip(
      tr("Drag, or left and right keys. Each mark is the strongest at which that tank stays clear on the "
         "coldest night."));
}

bool StrengthRuler::Mark::operator==(const Mark& other) const {
  constexpr double seen = 0.002; // of a factor: half a pixel of the ruler
  const auto near = [](double a, double b) { return std::abs(a - b) <= seen * std::abs(a); };
  return name == other.name && limitedBy == other.limitedBy && near(ceiling, other.ceiling) &&
         near(safe, other.safe) && words::ceilingFigure(ceiling) == words::ceilingFigure(other.ceiling);
}

void StrengthRuler::show(double factor, std::vector<Mark> marks) {
  const bool sameSides = std::ranges::equal(marks, m_marks, [&](const Mark& a, const Mark& b) {
    return (factor > a.ceiling) == (m_factor > b.ceiling);
  });
  if (factor == m_factor && marks == m_marks && sameSides) return;
  m_factor = factor;
  m_marks = std::move(marks);
  QStringList words{tr("1 to %1").arg(localFigure(factor))};
  for (const auto& m : m_marks)
    words << (m.ceiling > 0 ? tr("%1 clear up to 1 to %2")
                                  .arg(m.name, QString::fromStdString(words::ceilingFigure(m.ceiling)))
                            : tr("%1 not known").arg(m.name));
  setAccessibleDescription(words.join(", "));
  update();
}

Axis StrengthRuler::axis() const {
  return {thinnest, strongest, side, width() - side, true};
}

double StrengthRuler::xOf(double factor) const {
  return axis().at(std::clamp(factor, thinnest, strongest));
}

double StrengthRuler::factorAt(double x) const {
  return std::clamp(axis().valueAt(x), thinnest, strongest);
}

void StrengthRuler::paintScale(QPainter& p) const {
  const auto& t = theme();
  double least = strongest;
  for (const auto& m : m_marks) {
    if (m.ceiling > 0) least = std::min(least, m.safe);
  }
  const QRectF bar(side, barTop, width() - 2 * side, barHeight);
  p.fillRect(bar, t.card);
  p.fillRect(QRectF(bar.left(), bar.top(), xOf(least) - bar.left(), bar.height()), t.band);
  p.setPen(QPen(t.line, 1));
  p.drawRect(bar);
  p.setFont(faceOf(11));
  p.setPen(t.inkSoft);
  paintTicks(p, bar, axis(), {10, 20, 50, 100, 200, 500, 1000},
             [](double factor) { return QString("1:%1").arg(factor); });
}

/// Ceilings above the bar, words to the side where there is room; two at one place stand one below the other.
void StrengthRuler::paintMarks(QPainter& p) const {
  const auto& t = theme();
  const QFontMetrics metrics(faceOf(11));
  std::vector<QRectF> taken;
  for (const auto& m : m_marks) {
    if (m.ceiling <= 0) continue;
    const bool over = m_factor > m.ceiling;
    const double x = xOf(m.ceiling);
    const auto text = tr("%1 clear up to 1:%2 (%3)%4")
                          .arg(m.name, QString::fromStdString(words::ceilingFigure(m.ceiling)), m.limitedBy,
                               over ? " ▲" : "");
    const double w = metrics.horizontalAdvance(text) + 4;
    QRectF room(x - w - 5 < 0 ? x + 5 : x - w - 5, 0, w, 14);
    // Another mark's line must not run through the words either.
    const auto crossed = [&](const QRectF& r) { return r.intersects(room.adjusted(0, 0, 8, 0)); };
    while (std::any_of(taken.begin(), taken.end(), crossed) && room.top() < 14)
      room.translate(0, 14);
    taken.push_back(room);
    p.setPen(QPen(over ? t.red : t.ink, 2));
    p.drawLine(QPointF(x, room.top() + 3), QPointF(x, barTop + barHeight));
    p.setPen(over ? t.red : t.inkSoft);
    p.setFont(faceOf(11, over));
    paintLine(p, room, Qt::AlignLeft | Qt::AlignVCenter, text);
  }
}

void StrengthRuler::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  paintScale(p);
  paintMarks(p);
  const auto& t = theme();
  const double x = xOf(m_factor);
  p.setPen(QPen(hasFocus() ? t.amber : t.accentInk, 2));
  p.setBrush(t.accent);
  p.drawRoundedRect(QRectF(x - 7, barTop - 4, 14, barHeight + 8), 4, 4);
}

void StrengthRuler::mousePressEvent(QMouseEvent* event) {
  m_dragging = true;
  emit factorMoved(handy(factorAt(event->position().x())), false);
}

void StrengthRuler::mouseMoveEvent(QMouseEvent* event) {
  if (m_dragging) emit factorMoved(handy(factorAt(event->position().x())), false);
}

void StrengthRuler::mouseReleaseEvent(QMouseEvent* event) {
  if (m_dragging) emit factorMoved(handy(factorAt(event->position().x())), true);
  m_dragging = false;
}

void StrengthRuler::keyPressEvent(QKeyEvent* event) {
  const bool left = event->key() == Qt::Key_Left, right = event->key() == Qt::Key_Right;
  if (!left && !right) return QWidget::keyPressEvent(event);
  const double step = m_factor < 100 || (left && m_factor <= 100) ? 1 : m_factor < 300 ? 5 : 10;
  emit factorMoved(std::max(1.0, handy(m_factor + (left ? -step : step))), true);
}

} // namespace butte::app
