#include "stations/book/batch_picture.h"

#include "document/book_desk.h"
#include "paint/axes.h"
#include "paint/fitted_text.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "stations/book/batch_list.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

namespace butte::app {

namespace {
constexpr double leastTop = 4; // percent: a quiet farm's picture is not blown up
} // namespace

BatchPicture::BatchPicture(BookDesk& desk, QWidget* parent) : TimePicture(parent), m_desk(desk) {
  setObjectName("batchPicture");
  setAccessibleName(tr("batches over time, as high as their worst weighing is off plan"));
}

void BatchPicture::show(const book::BatchFilter& filter) {
  m_filter = filter;
  showAll();
}

void BatchPicture::showAll() {
  const auto today = book::Moment::now().seconds / day * day; // the same stretch all day long
  auto to = today + 2 * day, from = today - 90 * day;
  m_crops.clear();
  if (m_desk.isOpen()) {
    const auto years = m_desk.book().store().batchBuckets(m_filter, 7 * day);
    if (years && !years->empty()) from = std::min(from, (years->front().index - 1) * 7 * day);
    if (const auto crops = m_desk.book().store().cropsOfBatches()) m_crops = *crops;
  }
  if (m_filter.from) from = m_filter.from->seconds;
  if (m_filter.before) to = m_filter.before->seconds;
  setStretch(from, to);
}

void BatchPicture::fetch() {
  m_buckets.clear();
  forgetHovered();
  m_width = secondsPerMark();
  if (m_desk.isOpen()) {
    auto filter = m_filter;
    filter.from = book::Moment{from()};
    filter.before = book::Moment{to()};
    if (auto buckets = m_desk.book().store().batchBuckets(filter, m_width))
      m_buckets = std::move(buckets).value();
  }
  m_top = leastTop;
  for (const auto& bucket : m_buckets)
    m_top = std::max(m_top, bucket.worstPercent.value_or(0) * 1.1);
  update();
}

double BatchPicture::yOf(double percent) const {
  return plot().bottom() - plot().height() * std::min(percent, m_top) / m_top;
}

int BatchPicture::shapeOf(const std::string& crop) const {
  const auto it = std::find(m_crops.begin(), m_crops.end(), crop);
  return it == m_crops.end() ? 0 : static_cast<int>(it - m_crops.begin()) % markShapes;
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
  paintFocus(p);
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
  for (std::size_t i = std::min<std::size_t>(m_crops.size(), markShapes); i-- > 0;) {
    const auto name = qtext(m_crops[i]);
    x -= p.fontMetrics().horizontalAdvance(name) + 22;
    p.fillPath(markShape(static_cast<int>(i), {x + 7, 12}, 4.5), t.accent);
    p.drawText(QPointF(x + 15, 16), name);
  }
  const int left = static_cast<int>(x - box.left()) - 12;
  p.setPen(t.inkSoft);
  p.drawText(
      QRectF(box.left(), 4, left, 16), Qt::AlignLeft | Qt::AlignVCenter,
      fittedText(p.fontMetrics(), tr("worst weighing off plan · green: what a good hand keeps to"), left));
  paintTime(p);
}

void BatchPicture::paintMark(QPainter& p, std::size_t mark) const {
  const auto& t = theme();
  const auto& bucket = m_buckets[mark];
  const auto place = placeOf(static_cast<int>(mark));
  const double radius = std::min(8.0, 3.2 + std::sqrt(static_cast<double>(bucket.count)));
  const bool off = bucket.worstPercent.value_or(0) > offPlanPercent;
  const auto path = markShape(shapeOf(bucket.crop), place, radius);
  if (!bucket.worstPercent) {
    p.setPen(QPen(t.inkSoft, 1.2));
    p.setBrush(t.card);
    p.drawPath(path);
  } else {
    p.setPen(QPen(off ? t.amberInk : t.card, 1));
    p.setBrush(off ? t.amber : t.accent);
    p.drawPath(path);
  }
  if (static_cast<int>(mark) == hovered()) {
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

void BatchPicture::explain(int mark) {
  emit explained(wordsOf(m_buckets[static_cast<std::size_t>(mark)]));
}

void BatchPicture::choose(int mark) {
  const auto& bucket = m_buckets[static_cast<std::size_t>(mark)];
  emit stretchChosen({bucket.index * m_width}, {(bucket.index + 1) * m_width});
}

} // namespace butte::app
