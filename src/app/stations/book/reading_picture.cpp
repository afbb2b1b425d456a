#include "stations/book/reading_picture.h"

#include "deed_words.h"
#include "document/book_desk.h"
#include "paint/axes.h"
#include "paint/fitted_text.h"
#include "paint/theme.h"
#include "wording/reading_words.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

namespace butte::app {

ReadingPicture::ReadingPicture(BookDesk& desk, QWidget* parent) : TimePicture(parent), m_desk(desk) {
  setObjectName("readingPicture");
  setAccessibleName(tr("readings over time"));
}

void ReadingPicture::show(const book::ReadingFilter& filter) {
  const bool same = m_filter.vesselUid == filter.vesselUid && m_filter.quantity == filter.quantity;
  m_filter = filter;
  if (!same || m_vessels.empty()) return showAll();
  nameVessels();
  fetch();
}

void ReadingPicture::nameVessels() {
  m_vessels.clear();
  if (!m_desk.isOpen()) return;
  if (const auto heads = m_desk.book().store().list(book::Kind::Vessel, false)) {
    for (const auto& head : *heads)
      m_vessels.emplace_back(head.ref.uid, head.name);
  }
}

void ReadingPicture::showAll() {
  nameVessels();
  const auto today = book::Moment::now().seconds / day * day; // the same stretch all day long
  auto from = today - 30 * day;
  if (m_desk.isOpen()) {
    auto all = m_filter;
    all.from = all.before = std::nullopt;
    const auto weeks = m_desk.book().store().readingBuckets(all, 7 * day);
    for (std::size_t i = 0; weeks && i < weeks->size(); ++i)
      from = std::min(from, (*weeks)[i].index * 7 * day - day);
  }
  setStretch(from, today + 2 * day);
}

void ReadingPicture::fetch() {
  m_buckets.clear();
  forgetHovered();
  m_width = secondsPerMark();
  if (m_desk.isOpen()) {
    auto filter = m_filter;
    filter.from = book::Moment{from()};
    filter.before = book::Moment{to()};
    if (auto buckets = m_desk.book().store().readingBuckets(filter, m_width))
      m_buckets = std::move(buckets).value();
  }
  fitAxis();
  update();
}

/// All readings in view, with a little room; a quiet pH is not blown up to a storm.
void ReadingPicture::fitAxis() {
  double least = INFINITY, most = -INFINITY;
  for (const auto& bucket : m_buckets) {
    const double a = readingIn(m_filter.quantity, bucket.least),
                 b = readingIn(m_filter.quantity, bucket.most);
    least = std::min({least, a, b});
    most = std::max({most, a, b});
  }
  if (!(least <= most)) least = 0, most = 1;
  const double middle = (least + most) / 2;
  const double half = std::max({(most - least) * 0.6, std::abs(middle) * 0.08, 1e-6});
  m_least = std::max(least < 0 ? middle - half : 0.0, middle - half);
  m_most = middle + half;
}

double ReadingPicture::yOf(double value) const {
  const auto box = plot();
  return box.bottom() -
         box.height() * (readingIn(m_filter.quantity, value) - m_least) / std::max(1e-9, m_most - m_least);
}

QPointF ReadingPicture::placeOf(int mark) const {
  const auto& bucket = m_buckets[static_cast<std::size_t>(mark)];
  return {xOf((static_cast<double>(bucket.index) + 0.5) * static_cast<double>(m_width)), yOf(bucket.mean)};
}

int ReadingPicture::shapeOf(const std::string& vesselUid) const {
  const auto it =
      std::find_if(m_vessels.begin(), m_vessels.end(), [&](const auto& v) { return v.first == vesselUid; });
  return it == m_vessels.end() ? 0 : static_cast<int>(it - m_vessels.begin()) % markShapes;
}

QString ReadingPicture::vesselName(const std::string& vesselUid) const {
  for (const auto& [uid, name] : m_vessels) {
    if (uid == vesselUid) return qtext(name);
  }
  return {};
}

QString ReadingPicture::valueText(double value) const {
  return readingValueText(m_filter.quantity, value);
}

void ReadingPicture::paintEvent(QPaintEvent*) {
  const auto& t = theme();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  p.fillRect(rect(), t.card);
  paintScale(p);
  for (std::size_t v = 0; v < m_vessels.size(); ++v)
    paintVessel(p, v);
  p.setFont(faceOf(13));
  p.setPen(t.inkSoft);
  if (m_buckets.empty()) p.drawText(plot(), Qt::AlignCenter, tr("No such reading here yet."));
  paintFocus(p);
}

void ReadingPicture::paintScale(QPainter& p) const {
  const auto& t = theme();
  const auto box = plot();
  p.setFont(faceOf(11));
  p.setPen(t.inkSoft);
  const Axis axis{m_least, m_most, box.bottom(), box.top()};
  const double step = roundStep(m_most - m_least, 4);
  paintRungs(p, box, axis, marksOf(axis, step),
             [step](double value) { return localNumber(value, decimalsOf(step)); });
  p.setPen(t.inkSoft);
  const auto name =
      tr("%1%2").arg(qtext(words::quantityName(m_filter.quantity)), readingUnitNote(m_filter.quantity));
  // The vessels' shapes, those in view.
  double x = box.right();
  for (std::size_t i = m_vessels.size(); i-- > 0;) {
    const auto& [uid, vessel] = m_vessels[i];
    const bool seen = std::any_of(m_buckets.begin(), m_buckets.end(),
                                  [&](const book::ReadingBucket& b) { return b.vesselUid == uid; });
    if (!seen || x < box.left() + box.width() / 2) continue;
    x -= p.fontMetrics().horizontalAdvance(qtext(vessel)) + 22;
    p.fillPath(markShape(shapeOf(uid), {x + 7, 12}, 4.5), t.accent);
    p.drawText(QPointF(x + 15, 16), qtext(vessel));
  }
  const int left = static_cast<int>(x - box.left()) - 12;
  p.drawText(QRectF(box.left(), 4, left, 16), Qt::AlignLeft | Qt::AlignVCenter,
             fittedText(p.fontMetrics(), name, left));
  paintTime(p);
}

void ReadingPicture::paintVessel(QPainter& p, std::size_t vessel) const {
  const auto& t = theme();
  const auto& uid = m_vessels[vessel].first;
  QPolygonF line;
  p.setPen(QPen(t.line, 5, Qt::SolidLine, Qt::RoundCap));
  for (int i = 0; i < markCount(); ++i) {
    const auto& bucket = m_buckets[static_cast<std::size_t>(i)];
    if (bucket.vesselUid != uid) continue;
    const auto place = placeOf(i);
    if (bucket.count > 1)
      p.drawLine(QPointF(place.x(), yOf(bucket.least)), QPointF(place.x(), yOf(bucket.most)));
    line << place;
  }
  p.setBrush(Qt::NoBrush);
  p.setPen(QPen(t.inkSoft, 1));
  p.drawPolyline(line);
  const bool many = line.size() > 120;
  for (int i = 0; i < markCount(); ++i) {
    if (m_buckets[static_cast<std::size_t>(i)].vesselUid != uid) continue;
    if (!many) p.fillPath(markShape(shapeOf(uid), placeOf(i), 3.6), t.accent);
    if (i != hovered()) continue;
    p.setPen(QPen(t.ink, 2));
    p.drawEllipse(placeOf(i), 8, 8);
    p.setPen(QPen(t.inkSoft, 1));
  }
}

void ReadingPicture::explain(int mark) {
  const auto& bucket = m_buckets[static_cast<std::size_t>(mark)];
  const auto at = book::Moment{bucket.index * m_width + m_width / 2};
  const auto value = bucket.count == 1 ? valueText(bucket.mean)
                                       : tr("%1 on average of %2, from %3 to %4")
                                             .arg(valueText(bucket.mean))
                                             .arg(bucket.count)
                                             .arg(valueText(bucket.least), valueText(bucket.most));
  emit explained(tr("%1, %2: %3").arg(vesselName(bucket.vesselUid), dayText(at), value));
}

void ReadingPicture::choose(int mark) {
  const auto& bucket = m_buckets[static_cast<std::size_t>(mark)];
  emit chosen(bucket.vesselUid, {(bucket.index + 1) * m_width});
}

} // namespace butte::app
