#include "stations/book/batch_picture.h"

#include "document/book_desk.h"
#include "paint/axes.h"
#include "paint/fitted_text.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "stations/book/batch_list.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

namespace butte::app {

namespace {
constexpr std::int64_t day = 86400;
constexpr double pixelsPerMark = 9;
constexpr double leastTop = 4; // percent: a quiet farm's picture is not blown up
constexpr int shapes = 4;

QPainterPath shapePath(int shape, const QPointF& c, double r) {
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
} // namespace

BatchPicture::BatchPicture(BookDesk& desk, QWidget* parent) : QWidget(parent), m_desk(desk) {
  setMinimumHeight(178);
  setMouseTracking(true);
  setFocusPolicy(Qt::StrongFocus);
  setObjectName("batchPicture");
  setAccessibleName(tr("batches over time, as high as their worst weighing is off plan"));
}

void BatchPicture::show(const book::BatchFilter& filter) {
  m_filter = filter;
  showAll();
}

void BatchPicture::showAll() {
  const auto now = book::Moment::now().seconds;
  m_to = now + day;
  m_from = now - 90 * day;
  m_crops.clear();
  if (m_desk.isOpen()) {
    const auto years = m_desk.book().store().batchBuckets(m_filter, 7 * day);
    if (years && !years->empty()) m_from = std::min(m_from, (years->front().index - 1) * 7 * day);
    if (const auto crops = m_desk.book().store().cropsOfBatches()) m_crops = *crops;
  }
  if (m_filter.from) m_from = m_filter.from->seconds;
  if (m_filter.before) m_to = m_filter.before->seconds;
  fetch();
}

void BatchPicture::fetch() {
  m_buckets.clear();
  m_hover = -1;
  const double columns = std::max(20.0, plot().width() / pixelsPerMark);
  m_width =
      std::max<std::int64_t>(3600, static_cast<std::int64_t>(static_cast<double>(m_to - m_from) / columns));
  if (m_desk.isOpen()) {
    auto filter = m_filter;
    filter.from = book::Moment{m_from};
    filter.before = book::Moment{m_to};
    if (auto buckets = m_desk.book().store().batchBuckets(filter, m_width))
      m_buckets = std::move(buckets).value();
  }
  m_top = leastTop;
  for (const auto& bucket : m_buckets)
    m_top = std::max(m_top, bucket.worstPercent.value_or(0) * 1.1);
  update();
}

QRectF BatchPicture::plot() const {
  return QRectF(rect()).adjusted(56, 24, -10, -24);
}
double BatchPicture::xOf(double seconds) const {
  return plot().left() +
         plot().width() * (seconds - static_cast<double>(m_from)) / static_cast<double>(m_to - m_from);
}
double BatchPicture::yOf(double percent) const {
  return plot().bottom() - plot().height() * std::min(percent, m_top) / m_top;
}

int BatchPicture::shapeOf(const std::string& crop) const {
  const auto it = std::find(m_crops.begin(), m_crops.end(), crop);
  return it == m_crops.end() ? 0 : static_cast<int>(it - m_crops.begin()) % shapes;
}

QPointF BatchPicture::placeOf(int mark) const {
  const auto& bucket = m_buckets[static_cast<std::size_t>(mark)];
  const double middle = (static_cast<double>(bucket.index) + 0.5) * static_cast<double>(m_width);
  return {xOf(middle), bucket.worstPercent ? yOf(*bucket.worstPercent) : plot().bottom() + 5};
}

void BatchPicture::paintEvent(QPaintEvent*) {
  const auto& t = theme();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  p.fillRect(rect(), t.card);
  paintScale(p);
  for (std::size_t i = 0; i < m_buckets.size(); ++i)
    paintMark(p, i);
  p.setFont(faceOf(13));
  if (m_buckets.empty()) {
    p.setPen(t.inkSoft);
    p.drawText(plot(), Qt::AlignCenter, tr("No batch here yet. Bench station, “Mixed it”, keeps one."));
  }
  if (hasFocus()) {
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.accent, 2));
    p.drawRect(rect().adjusted(1, 1, -1, -1));
  }
}

void BatchPicture::paintScale(QPainter& p) const {
  const auto& t = theme();
  const auto box = plot();
  p.fillRect(QRectF(box.left(), yOf(offPlanPercent), box.width(), box.bottom() - yOf(offPlanPercent)),
             t.band);
  p.setFont(faceOf(11));
  p.setPen(t.inkSoft);
  const double step = m_top > 20 ? 10 : m_top > 8 ? 4 : 2;
  const Axis percents{0, m_top, box.bottom(), box.top()};
  paintRungs(p, box, percents, marksOf(percents, step),
             [](double percent) { return localNumber(percent, 0) + " %"; });
  p.setPen(t.inkSoft);
  // The crops' shapes.
  double x = box.right();
  for (std::size_t i = std::min<std::size_t>(m_crops.size(), shapes); i-- > 0;) {
    const auto name = qtext(m_crops[i]);
    x -= p.fontMetrics().horizontalAdvance(name) + 22;
    p.fillPath(shapePath(static_cast<int>(i), {x + 7, 12}, 4.5), t.accent);
    p.drawText(QPointF(x + 15, 16), name);
  }
  const int left = static_cast<int>(x - box.left()) - 12;
  p.setPen(t.inkSoft);
  p.drawText(
      QRectF(box.left(), 4, left, 16), Qt::AlignLeft | Qt::AlignVCenter,
      fittedText(p.fontMetrics(), tr("worst weighing off plan · green: what a good hand keeps to"), left));
  // The months or years below.
  auto tick = QDateTime::fromSecsSinceEpoch(m_from).date();
  const double days = static_cast<double>(m_to - m_from) / day;
  const int months = days > 2500 ? 12 : days > 1200 ? 6 : days > 500 ? 3 : 1;
  tick = QDate(tick.year(), 1, 1);
  for (; tick.startOfDay().toSecsSinceEpoch() < m_to; tick = tick.addMonths(months)) {
    const auto at = tick.startOfDay().toSecsSinceEpoch();
    if (at < m_from) continue;
    p.setPen(t.line);
    p.drawLine(QPointF(xOf(static_cast<double>(at)), box.top()),
               QPointF(xOf(static_cast<double>(at)), box.bottom() + 4));
    p.setPen(t.inkSoft);
    const auto name =
        tick.month() == 1 || months == 12 ? tick.toString("yyyy") : QLocale().toString(tick, "MMM");
    const QPointF place(xOf(static_cast<double>(at)) + 3, box.bottom() + 20);
    if (place.x() + p.fontMetrics().horizontalAdvance(name) <= width()) p.drawText(place, name);
  }
}

void BatchPicture::paintMark(QPainter& p, std::size_t mark) const {
  const auto& t = theme();
  const auto& bucket = m_buckets[mark];
  const auto place = placeOf(static_cast<int>(mark));
  const double radius = std::min(8.0, 3.2 + std::sqrt(static_cast<double>(bucket.count)));
  const bool off = bucket.worstPercent.value_or(0) > offPlanPercent;
  const auto path = shapePath(shapeOf(bucket.crop), place, radius);
  if (!bucket.worstPercent) {
    p.setPen(QPen(t.inkSoft, 1.2));
    p.setBrush(t.card);
    p.drawPath(path);
  } else {
    p.setPen(QPen(off ? t.amberInk : t.card, 1));
    p.setBrush(off ? t.amber : t.accent);
    p.drawPath(path);
  }
  if (static_cast<int>(mark) == m_hover) {
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.ink, 2));
    p.drawEllipse(place, radius + 4, radius + 4);
  }
}

QString BatchPicture::wordsOf(const book::BatchBucket& bucket) const {
  const auto first = dayText({bucket.index * m_width}), last = dayText({(bucket.index + 1) * m_width - 1});
  return tr("%1%2: %3 %4 of %5, %6")
      .arg(first, first == last ? QString() : tr(" to %1").arg(last))
      .arg(bucket.count)
      .arg(bucket.count == 1 ? "batch" : "batches",
           bucket.crop.empty() ? tr("no crop named") : qtext(bucket.crop),
           bucket.worstPercent ? tr("%1 % off plan at worst").arg(localFigure(*bucket.worstPercent))
                               : tr("nothing weighed yet"));
}

int BatchPicture::markAt(const QPointF& point) const {
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

void BatchPicture::mouseMoveEvent(QMouseEvent* event) {
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
  if (mark >= 0) emit explained(wordsOf(m_buckets[static_cast<std::size_t>(mark)]));
  update();
}

void BatchPicture::mousePressEvent(QMouseEvent* event) {
  m_pressed = event->position();
  m_dragged = false;
}

void BatchPicture::mouseReleaseEvent(QMouseEvent* event) {
  if (m_dragged) return;
  const int mark = markAt(event->position());
  if (mark < 0) return;
  const auto& bucket = m_buckets[static_cast<std::size_t>(mark)];
  emit explained(wordsOf(bucket));
  emit stretchChosen({bucket.index * m_width}, {(bucket.index + 1) * m_width});
}

void BatchPicture::zoom(double factor, double at) {
  const double span = std::clamp(static_cast<double>(m_to - m_from) * factor, 2.0 * day, 40.0 * 366 * day);
  const double fixed = static_cast<double>(m_from) + at * static_cast<double>(m_to - m_from);
  m_from = static_cast<std::int64_t>(fixed - at * span);
  m_to = m_from + static_cast<std::int64_t>(span);
  fetch();
}

void BatchPicture::move(std::int64_t seconds) {
  m_from += seconds;
  m_to += seconds;
  fetch();
}

void BatchPicture::wheelEvent(QWheelEvent* event) {
  if (event->angleDelta().y() == 0) return;
  zoom(event->angleDelta().y() > 0 ? 0.8 : 1.25,
       std::clamp((event->position().x() - plot().left()) / plot().width(), 0.0, 1.0));
  event->accept();
}

void BatchPicture::keyPressEvent(QKeyEvent* event) {
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

void BatchPicture::resizeEvent(QResizeEvent*) {
  fetch();
}

} // namespace butte::app
