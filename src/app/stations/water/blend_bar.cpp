#include "stations/water/blend_bar.h"

#include "paint/fitted_text.h"
#include "paint/hatch.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "wording/tr.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

namespace butte::app {

namespace {
constexpr double grip = 7; // pixels to both sides of a border; gloves are thick
} // namespace

BlendBar::BlendBar(QWidget* parent) : QWidget(parent) {
  setObjectName("blendBar");
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  setAccessibleName(tr("sources of the water and their shares"));
  m_hint = tr("Drag a border, or left and right keys: share between neighbours. Up and down: next source.");
}

void BlendBar::show(std::vector<Segment> segments, std::size_t inHand) {
  if (segments == m_segments && inHand == m_inHand) return;
  m_segments = std::move(segments);
  m_inHand = inHand;
  QStringList words;
  for (const auto& s : m_segments)
    words << QString("%1 % %2 · %3").arg(localNumber(s.percent, 1), s.name, s.detail);
  setAccessibleDescription(words.join(", "));
  setToolTip(m_hint + "\n\n" + words.join("\n"));
  update();
}

/// A source without share can still be clicked, and its name read.
double BlendBar::leastWidth() const {
  constexpr double forName = 120;
  return std::min(forName, width() / (2.0 * std::max<double>(1, static_cast<double>(m_segments.size()))));
}

double BlendBar::edge(std::size_t index) const {
  const double room = width() - leastWidth() * static_cast<double>(m_segments.size());
  double x = 0;
  for (std::size_t i = 0; i < index && i < m_segments.size(); ++i)
    x += leastWidth() + room * m_segments[i].percent / 100;
  return x;
}

int BlendBar::borderAt(double x) const {
  for (std::size_t i = 1; i < m_segments.size(); ++i) {
    if (std::abs(x - edge(i)) <= grip) return static_cast<int>(i);
  }
  return -1;
}

void BlendBar::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const auto& t = theme();
  for (std::size_t i = 0; i < m_segments.size(); ++i) {
    const auto& s = m_segments[i];
    const QRectF r(edge(i), 0, edge(i + 1) - edge(i), height());
    fillAsWater(p, r);
    p.fillRect(QRectF(r.left(), r.top() + 6, r.width(), r.height() - 12),
               QColor(t.card.red(), t.card.green(), t.card.blue(), 190));
    p.setPen(QPen(i == m_inHand ? t.accent : t.line, i == m_inHand ? 3 : 1));
    p.drawRect(r.adjusted(1, 1, -1, -1));
    p.setPen(t.ink);
    p.setFont(faceOf(14, true));
    const auto head = m_segments.size() == 1
                          ? s.name
                          : QString("%1 %  %2").arg(localNumber(s.percent, s.percent < 10 ? 1 : 0), s.name);
    const int room = static_cast<int>(r.width()) - 14;
    p.drawText(QRectF(r.left() + 9, 7, room, 20), Qt::AlignLeft | Qt::AlignVCenter,
               fittedText(p.fontMetrics(), head, room));
    p.setPen(t.inkSoft);
    p.setFont(faceOf(12));
    p.drawText(QRectF(r.left() + 9, 28, room, 20), Qt::AlignLeft | Qt::AlignVCenter,
               fittedText(p.fontMetrics(), s.detail, room));
  }
  for (std::size_t i = 1; i < m_segments.size(); ++i) {
    const QRectF knob(edge(i) - 4, height() / 2.0 - 12, 8, 24);
    p.setPen(Qt::NoPen);
    p.setBrush(t.accent);
    p.drawRoundedRect(knob, 3, 3);
  }
  if (hasFocus()) {
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.accent, 1, Qt::DotLine));
    p.drawRect(rect().adjusted(4, 4, -5, -5));
  }
}

void BlendBar::shift(std::size_t border, double percent, bool done) {
  std::vector<double> shares;
  for (const auto& s : m_segments)
    shares.push_back(s.percent);
  const double moved = std::clamp(percent, -shares[border - 1], shares[border]);
  shares[border - 1] += moved;
  shares[border] -= moved;
  emit sharesMoved(shares, done);
}

void BlendBar::mousePressEvent(QMouseEvent* event) {
  m_dragged = borderAt(event->position().x());
  if (m_dragged >= 0) return;
  for (std::size_t i = 0; i < m_segments.size(); ++i) {
    if (event->position().x() >= edge(i) && event->position().x() < edge(i + 1)) emit chosen(i);
  }
}

void BlendBar::mouseMoveEvent(QMouseEvent* event) {
  const double x = event->position().x();
  setCursor(m_dragged >= 0 || borderAt(x) >= 0 ? Qt::SplitHCursor : Qt::ArrowCursor);
  if (m_dragged < 0) return;
  const double room = width() - leastWidth() * static_cast<double>(m_segments.size());
  const auto border = static_cast<std::size_t>(m_dragged);
  // Whole percents while dragging; the keys and the field go finer.
  const double wanted = std::round(m_segments[border - 1].percent + (x - edge(border)) / room * 100);
  const double moved = wanted - m_segments[border - 1].percent;
  if (std::abs(moved) >= 0.5) shift(border, moved, false);
}

void BlendBar::mouseReleaseEvent(QMouseEvent*) {
  if (m_dragged >= 0) shift(static_cast<std::size_t>(m_dragged), 0, true);
  m_dragged = -1;
}

void BlendBar::keyPressEvent(QKeyEvent* event) {
  const bool left = event->key() == Qt::Key_Left, right = event->key() == Qt::Key_Right;
  if ((left || right) && m_segments.size() > 1) {
    const auto border = std::min(m_inHand + 1, m_segments.size() - 1);
    const double step = event->modifiers() & Qt::ControlModifier ? 0.1 : 1;
    return shift(border, left ? -step : step, true);
  }
  if (event->key() == Qt::Key_Down || event->key() == Qt::Key_Up) {
    const auto n = m_segments.size();
    if (n > 0) emit chosen((m_inHand + (event->key() == Qt::Key_Down ? 1 : n - 1)) % n);
    return;
  }
  QWidget::keyPressEvent(event);
}

} // namespace butte::app
