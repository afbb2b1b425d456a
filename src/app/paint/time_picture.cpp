#include "paint/time_picture.h"

#include "paint/theme.h"

#include <QDateTime>
#include <QLocale>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

namespace butte::app {

namespace {
constexpr double pixelsPerMark = 9;
}

QPainterPath markShape(int shape, const QPointF& c, double r) {
  QPainterPath path;
  if (shape == 0)
    path.addEllipse(c, r, r);
  else if (shape == 1)
    path.addRect(c.x() - r * 0.9, c.y() - r * 0.9, 1.8 * r, 1.8 * r);
  else if (shape == 2)
    path.addPolygon(QPolygonF({{c.x(), c.y() - 1.15 * r},
                               {c.x() + 1.1 * r, c.y() + 0.85 * r},
                               {c.x() - 1.1 * r, c.y() + 0.85 * r}}));
  else
    path.addPolygon(QPolygonF({{c.x(), c.y() - 1.25 * r},
                               {c.x() + 1.25 * r, c.y()},
                               {c.x(), c.y() + 1.25 * r},
                               {c.x() - 1.25 * r, c.y()}}));
  path.closeSubpath();
  return path;
}

TimePicture::TimePicture(QWidget* parent) : QWidget(parent) {
  setMinimumHeight(178);
  setMouseTracking(true);
  setFocusPolicy(Qt::StrongFocus);
}

void TimePicture::setStretch(std::int64_t from, std::int64_t to) {
  m_from = from;
  m_to = std::max(to, from + 3600);
  fetch();
}

std::int64_t TimePicture::secondsPerMark() const {
  const double columns = std::max(20.0, plot().width() / pixelsPerMark);
  return std::max<std::int64_t>(3600,
                                static_cast<std::int64_t>(static_cast<double>(m_to - m_from) / columns));
}

QRectF TimePicture::plot() const {
  return QRectF(rect()).adjusted(56, 24, -10, -24);
}

double TimePicture::xOf(double seconds) const {
  return plot().left() +
         plot().width() * (seconds - static_cast<double>(m_from)) / static_cast<double>(m_to - m_from);
}

void TimePicture::paintTime(QPainter& p) const {
  const auto& t = theme();
  const auto box = plot();
  auto tick = QDateTime::fromSecsSinceEpoch(m_from).date();
  const double days = static_cast<double>(m_to - m_from) / day;
  const int months = days > 2500 ? 12 : days > 1200 ? 6 : days > 500 ? 3 : days > 62 ? 1 : 0;
  const int everyDays = days > 21 ? 7 : days > 10 ? 2 : 1;
  tick = months > 0 ? QDate(tick.year(), 1, 1) : tick;
  for (; tick.startOfDay().toSecsSinceEpoch() < m_to;
       tick = months > 0 ? tick.addMonths(months) : tick.addDays(everyDays)) {
    const auto at = tick.startOfDay().toSecsSinceEpoch();
    if (at < m_from) continue;
    p.setPen(t.line);
    p.drawLine(QPointF(xOf(static_cast<double>(at)), box.top()),
               QPointF(xOf(static_cast<double>(at)), box.bottom() + 4));
    p.setPen(t.inkSoft);
    const auto name = months == 0                         ? QLocale().toString(tick, "d MMM")
                      : tick.month() == 1 || months == 12 ? tick.toString("yyyy")
                                                          : QLocale().toString(tick, "MMM");
    const QPointF place(xOf(static_cast<double>(at)) + 3, box.bottom() + 20);
    if (place.x() + p.fontMetrics().horizontalAdvance(name) <= width()) p.drawText(place, name);
  }
}

void TimePicture::paintFocus(QPainter& p) const {
  if (!hasFocus()) return;
  p.setBrush(Qt::NoBrush);
  p.setPen(QPen(theme().accent, 2));
  p.drawRect(rect().adjusted(1, 1, -1, -1));
}

int TimePicture::markAt(const QPointF& point) const {
  int best = -1;
  double nearest = 12 * 12;
  for (int i = 0; i < markCount(); ++i) {
    const auto d = placeOf(i) - point;
    const double distance = d.x() * d.x() + d.y() * d.y();
    if (distance < nearest) {
      nearest = distance;
      best = i;
    }
  }
  return best;
}

void TimePicture::mouseMoveEvent(QMouseEvent* event) {
  if (event->buttons() & Qt::LeftButton) {
    const double dx = event->position().x() - m_pressed.x();
    if (!m_dragged && std::abs(dx) < 6) return;
    m_dragged = true;
    move(static_cast<std::int64_t>(-dx / plot().width() * static_cast<double>(m_to - m_from)));
    m_pressed = event->position();
    return;
  }
  const int mark = markAt(event->position());
  if (mark == m_hover) return;
  m_hover = mark;
  if (mark >= 0) explain(mark);
  update();
}

void TimePicture::mousePressEvent(QMouseEvent* event) {
  m_pressed = event->position();
  m_dragged = false;
}

void TimePicture::mouseReleaseEvent(QMouseEvent* event) {
  if (m_dragged) return;
  const int mark = markAt(event->position());
  if (mark < 0) return;
  explain(mark);
  choose(mark);
}

void TimePicture::zoom(double factor, double at) {
  const double span = std::clamp(static_cast<double>(m_to - m_from) * factor, 2.0 * day, 40.0 * 366 * day);
  const double fixed = static_cast<double>(m_from) + at * static_cast<double>(m_to - m_from);
  m_from = static_cast<std::int64_t>(fixed - at * span);
  m_to = m_from + static_cast<std::int64_t>(span);
  fetch();
}

void TimePicture::move(std::int64_t seconds) {
  m_from += seconds;
  m_to += seconds;
  fetch();
}

void TimePicture::wheelEvent(QWheelEvent* event) {
  if (event->angleDelta().y() == 0) return;
  zoom(event->angleDelta().y() > 0 ? 0.8 : 1.25,
       std::clamp((event->position().x() - plot().left()) / plot().width(), 0.0, 1.0));
  event->accept();
}

void TimePicture::keyPressEvent(QKeyEvent* event) {
  const auto eighth = (m_to - m_from) / 8;
  switch (event->key()) {
  case Qt::Key_Plus:
    return zoom(0.7, 0.5);
  case Qt::Key_Minus:
    return zoom(1 / 0.7, 0.5);
  case Qt::Key_Left:
    return move(-eighth);
  case Qt::Key_Right:
    return move(eighth);
  case Qt::Key_Home:
    return showAll();
  default:
    QWidget::keyPressEvent(event);
  }
}

void TimePicture::resizeEvent(QResizeEvent*) {
  fetch();
}

} // namespace butte::app
