#include "stations/tank/tank_picture.h"

#include "deed_words.h"
#include "paint/fitted_text.h"
#include "paint/line_of_text.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "stations/tank/tank_words.h"
#include "wording/reading_words.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

namespace butte::app {

namespace {
constexpr double rowOfDeeds = 20, gapBetween = 10, readingRadius = 3;

int shapeOfDeed(book::TankDid did) {
  switch (did) {
  case book::TankDid::Filled:
  case book::TankDid::Poured:
    return 2;
  case book::TankDid::Salts:
  case book::TankDid::Medium:
    return 1;
  case book::TankDid::Bleeds:
  case book::TankDid::Drained:
  case book::TankDid::Emptied:
    return 3;
  default:
    return 0;
  }
}
} // namespace

TankPicture::TankPicture(UnitsShown& units, QWidget* parent) : TimePicture(parent), m_units(units) {
  setObjectName("tankPicture");
  setAccessibleName(tr("the tank over time"));
  setMinimumHeight(226);
}

void TankPicture::showNothing(const QString& why) {
  m_strips.clear();
  m_marks.clear();
  m_why = why;
  m_shown = false;
  setAccessibleDescription(why);
  update();
}

void TankPicture::layOver(const QString& name, const std::vector<book::Reading>& readings,
                          std::int64_t later) {
  m_over.clear();
  m_overName = name;
  for (const auto& reading : readings)
    m_over[reading.quantity].emplace_back(static_cast<double>(reading.at.seconds + later),
                                          readingIn(reading.quantity, reading.value));
  fitAxes();
  update();
}

void TankPicture::addStrip(const QString& name, const char* quantity, const TankGiven& given,
                           const TankStory& story, const Figure& figure,
                           std::optional<std::pair<double, double>> wanted) {
  Strip strip;
  strip.name = name;
  strip.quantity = quantity;
  strip.wanted = wanted;
  const auto point = [&](const core::TankEstimate& at, std::vector<Point>& into) {
    if (const auto band = figure(at)) into.push_back({static_cast<double>(story.secondsOf(at.day)), *band});
  };
  for (const auto& at : story.estimates)
    point(at, strip.told);
  for (const auto& at : story.forecast)
    point(at, strip.ahead);
  for (const auto& reading : given.readings) {
    if (reading.quantity != quantity) continue;
    const auto at = static_cast<double>(reading.at.seconds);
    const double value = readingIn(quantity, reading.value);
    strip.read.emplace_back(at, value);
    m_marks.push_back(
        {at, 0, static_cast<int>(m_strips.size()), value,
         tr("%1: %2 %3").arg(whenText(reading.at), name, readingValueText(quantity, reading.value))});
  }
  for (const auto& reading : given.doubted) {
    if (reading.quantity != quantity) continue;
    const auto at = static_cast<double>(reading.at.seconds);
    strip.doubted.emplace_back(at, readingIn(quantity, reading.value));
  }
  m_strips.push_back(std::move(strip));
}

std::int64_t TankPicture::secondsPerDot() const {
  constexpr double dot = 3;
  return std::max<std::int64_t>(60, static_cast<std::int64_t>(static_cast<double>(to() - from()) * dot /
                                                              std::max(1.0, plot().width())));
}

void TankPicture::showCloser(const CloseReadings& close) {
  m_closeFrom = close.from;
  m_closeTo = close.to;
  for (auto& strip : m_strips) {
    strip.closer.clear();
    const auto found = close.byQuantity.find(strip.quantity);
    if (found == close.byQuantity.end()) continue;
    for (const auto& bucket : found->second)
      strip.closer.push_back(
          {static_cast<double>(bucket.index * close.widthSeconds + close.widthSeconds / 2),
           {readingIn(strip.quantity, bucket.mean), readingIn(strip.quantity, bucket.least),
            readingIn(strip.quantity, bucket.most)}});
  }
  fitAxes();
  update();
}

void TankPicture::show(const TankGiven& given, const TankStory& story) {
  m_strips.clear();
  m_marks.clear();
  m_why.clear();
  const auto inUnit = [](const char* quantity, const core::Band& band) {
    return core::Band{readingIn(quantity, band.value), readingIn(quantity, band.low),
                      readingIn(quantity, band.high)};
  };
  addStrip(
      tr("EC%1").arg(readingUnitNote("ec")), "ec", given, story,
      [&](const core::TankEstimate& at) {
        return at.at25 ? std::optional(inUnit("ec", *at.at25)) : std::nullopt;
      },
      std::pair(readingIn("ec", story.request.rule.lowEc.milliSiemensPerCm()),
                readingIn("ec", story.request.rule.highEc.milliSiemensPerCm())));
  addStrip(
      tr("pH"), "ph", given, story, [](const core::TankEstimate& at) { return at.ph; },
      std::pair(story.request.lowPh, story.request.highPh));
  const double full = given.facts.fullVolume().litres(), low = given.facts.lowVolume().litres();
  addStrip(
      tr("level%1").arg(readingUnitNote("level")), "level", given, story,
      [&](const core::TankEstimate& at) { return std::optional(inUnit("level", at.litres)); },
      std::pair(readingIn("level", low), readingIn("level", full)));
  // Where it was read; nothing is expected of it.
  if (std::any_of(given.readings.begin(), given.readings.end(),
                  [](const book::Reading& reading) { return reading.quantity == "temperature"; }))
    addStrip(tr("temperature%1").arg(readingUnitNote("temperature")), "temperature", given, story,
             [](const core::TankEstimate&) { return std::optional<core::Band>(); }, {});
  for (const auto& line : given.lines)
    m_marks.push_back({static_cast<double>(line.at.seconds), shapeOfDeed(line.did), -1, 0,
                       tr("%1: %2").arg(whenText(line.at), lineWords(line, given))});
  m_start = static_cast<double>(story.start);
  m_now = static_cast<double>(given.now.seconds);
  m_end = m_now;
  if (!story.forecast.empty()) m_end = static_cast<double>(story.secondsOf(story.forecast.back().day));
  QStringList said;
  for (const auto& mark : m_marks)
    said << mark.text;
  setAccessibleDescription(said.join("; "));
  if (!m_shown) showAll();
  m_shown = true;
  fitAxes();
  update();
}

void TankPicture::showAll() {
  constexpr double most = 75.0 * day;
  const double from = std::max(m_start, m_now - most), margin = 0.02 * (m_end - from) + 3600;
  setStretch(static_cast<std::int64_t>(from - margin), static_cast<std::int64_t>(m_end + margin));
}

void TankPicture::fetch() {
  fitAxes();
  update();
  if (onStretch) onStretch();
}

/// Each strip reaches over all that is in view, read and told, and over what is wanted where that is near.
void TankPicture::fitAxes() {
  for (auto& strip : m_strips) {
    double least = HUGE_VAL, most = -HUGE_VAL;
    const auto over = [&](double seconds, double low, double high) {
      if (seconds < static_cast<double>(from()) || seconds > static_cast<double>(to())) return;
      least = std::min(least, low);
      most = std::max(most, high);
    };
    for (const auto* points : {&strip.told, &strip.ahead, &strip.closer})
      for (const auto& point : *points)
        over(point.seconds, point.band.low, point.band.high);
    for (const auto& [seconds, value] : strip.read)
      over(seconds, value, value);
    if (const auto laid = m_over.find(strip.quantity); laid != m_over.end())
      for (const auto& [seconds, value] : laid->second)
        over(seconds, value, value);
    if (strip.wanted) {
      // What was read keeps most of the strip: an edge that is far off stays out of view.
      constexpr double half = 0.5;
      const double reach = least < most ? half * (most - least) : HUGE_VAL;
      const double lowest = least - reach, highest = most + reach;
      least = std::min(least, std::max(lowest, strip.wanted->first));
      most = std::max(most, std::min(highest, strip.wanted->second));
    }
    if (!(least < most)) least = least - 0.5, most = least + 1;
    if (!std::isfinite(least)) least = 0, most = 1;
    const double dot = (readingRadius + 2) / std::max(1.0, stripRoom(0).height());
    const double room = std::max(0.06, dot) * (most - least);
    strip.least = least >= 0 ? std::max(least - room, 0.0) : least - room;
    strip.most = most + room;
  }
}

QRectF TankPicture::stripRoom(std::size_t strip) const {
  const auto box = plot().adjusted(0, 0, 0, -rowOfDeeds);
  const auto count = static_cast<double>(std::max<std::size_t>(m_strips.size(), 1));
  const double high = (box.height() - gapBetween * (count - 1)) / count;
  return QRectF(box.left(), box.top() + static_cast<double>(strip) * (high + gapBetween), box.width(), high);
}

Axis TankPicture::axisOf(std::size_t strip) const {
  const auto room = stripRoom(strip);
  return {m_strips[strip].least, m_strips[strip].most, room.bottom(), room.top()};
}

QPointF TankPicture::placeOf(int index) const {
  const auto& mark = m_marks[static_cast<std::size_t>(index)];
  if (mark.strip < 0) return {xOf(mark.seconds), plot().bottom() - rowOfDeeds / 2};
  return {xOf(mark.seconds), axisOf(static_cast<std::size_t>(mark.strip)).at(mark.value)};
}

void TankPicture::explain(int mark) {
  emit explained(markText(mark));
  setToolTip(markText(mark));
}

void TankPicture::choose(int mark) {
  explain(mark);
}

void TankPicture::paintBand(QPainter& p, const Axis& axis, const std::vector<Point>& points,
                            bool ahead) const {
  if (points.empty()) return;
  const auto& t = theme();
  QPolygonF upper, lower, middle;
  for (const auto& point : points) {
    const double x = xOf(point.seconds);
    upper << QPointF(x, axis.at(point.band.high));
    lower.prepend(QPointF(x, axis.at(point.band.low)));
    middle << QPointF(x, axis.at(point.band.value));
  }
  auto tone = t.water;
  tone.setAlphaF(ahead ? 0.35F : 0.75F);
  p.setPen(Qt::NoPen);
  p.setBrush(tone);
  p.drawPolygon(upper + lower);
  p.setPen(QPen(t.inkSoft, 1.2, ahead ? Qt::DashLine : Qt::SolidLine));
  p.setBrush(Qt::NoBrush);
  p.drawPolyline(middle);
}

/// Another vessel's line: dotted, without its band.
void TankPicture::paintOver(QPainter& p, const Axis& axis, const Strip& strip) const {
  const auto laid = m_over.find(strip.quantity);
  if (laid == m_over.end()) return;
  const auto& t = theme();
  QPolygonF line;
  for (const auto& [seconds, value] : laid->second)
    line << QPointF(xOf(seconds), axis.at(value));
  p.setBrush(Qt::NoBrush);
  p.setPen(QPen(t.amber, 1.6, Qt::DotLine));
  p.drawPolyline(line);
  if (strip.quantity != "ec") return;
  p.setFont(faceOf(11));
  p.setPen(t.amberInk);
  paintLine(p, QRectF(plot().right() - 260, axis.to + 2, 254, 14), Qt::AlignRight | Qt::AlignVCenter,
            tr("dotted: %1").arg(m_overName));
}

void TankPicture::paintStrip(QPainter& p, std::size_t index) const {
  const auto& t = theme();
  const auto& strip = m_strips[index];
  const auto room = stripRoom(index);
  const auto axis = axisOf(index);
  p.fillRect(room, t.page);
  if (strip.wanted) {
    const QRectF wanted(QPointF(room.left(), axis.at(strip.wanted->second)),
                        QPointF(room.right(), axis.at(strip.wanted->first)));
    p.fillRect(wanted.intersected(room), t.band);
  }
  p.setFont(faceOf(11));
  p.setPen(t.inkSoft);
  constexpr double perRung = 15; // lines of figures that do not touch
  constexpr int mostRungs = 3;
  const int rungs = std::clamp(static_cast<int>(room.height() / perRung), 1, mostRungs);
  const double step = roundStep(axis.most - axis.least, rungs);
  paintRungs(p, room, axis, marksOf(axis, step),
             [step](double value) { return localNumber(value, decimalsOf(step)); });
  p.save();
  p.setClipRect(room);
  paintBand(p, axis, strip.told, false);
  paintBand(p, axis, strip.ahead, true);
  paintOver(p, axis, strip);
  paintReadings(p, axis, strip);
  p.restore();
  p.setFont(faceOf(12, true));
  const double wide = p.fontMetrics().horizontalAdvance(strip.name) + 8;
  const QRectF plate(room.left() + 2, room.top() + 1, wide, 16);
  auto behind = t.page;
  behind.setAlphaF(0.85F);
  p.fillRect(plate, behind);
  p.setPen(t.ink);
  paintLine(p, plate, Qt::AlignCenter, strip.name);
}

/// Where they were read closer, each dot is a short stretch, drawn from its least to its most. Doubted ones
/// are hollow.
void TankPicture::paintReadings(QPainter& p, const Axis& axis, const Strip& strip) const {
  const auto& t = theme();
  constexpr double fine = 1.5, hollow = 3.5;
  constexpr std::size_t manyReadings = 400;
  const bool many = strip.read.size() > manyReadings;
  for (const auto& [seconds, value] : strip.read) {
    const bool closer = !strip.closer.empty() && seconds >= static_cast<double>(m_closeFrom) &&
                        seconds < static_cast<double>(m_closeTo);
    const double x = xOf(seconds);
    if (closer || x < plot().left() || x > plot().right()) continue;
    p.fillPath(markShape(0, {x, axis.at(value)}, many ? fine : readingRadius), t.accent);
  }
  for (const auto& point : strip.closer) {
    const double x = xOf(point.seconds), high = axis.at(point.band.high), low = axis.at(point.band.low);
    p.fillRect(QRectF(x - 1, high - 1, 2, std::max(2.0, low - high + 2)), t.accent);
  }
  p.setPen(QPen(t.red, 1.5));
  p.setBrush(Qt::NoBrush);
  for (const auto& [seconds, value] : strip.doubted)
    p.drawEllipse(QPointF(xOf(seconds), std::clamp(axis.at(value), axis.to + hollow, axis.from - hollow)),
                  hollow, hollow);
}

void TankPicture::paintNow(QPainter& p) const {
  const auto& t = theme();
  const auto box = plot();
  const double x = xOf(m_now);
  if (x < box.left() || x > box.right()) return;
  p.setPen(QPen(t.ink, 1.5));
  p.drawLine(QPointF(x, box.top() - 4), QPointF(x, box.bottom()));
  p.setFont(faceOf(11, true));
  paintLine(p, QRectF(x - 60, box.top() - 20, 120, 15), Qt::AlignCenter, tr("now"));
}

void TankPicture::paintMarks(QPainter& p) const {
  const auto& t = theme();
  for (int i = 0; i < markCount(); ++i) {
    const auto& mark = m_marks[static_cast<std::size_t>(i)];
    const auto place = placeOf(i);
    if (place.x() < plot().left() || place.x() > plot().right()) continue;
    if (mark.strip < 0) p.fillPath(markShape(mark.shape, place, 5), t.accent);
    if (i != hovered()) continue;
    p.setPen(QPen(t.ink, 2));
    p.setBrush(Qt::NoBrush);
    p.drawEllipse(place, 8, 8);
  }
}

void TankPicture::paintEvent(QPaintEvent*) {
  const auto& t = theme();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  p.fillRect(rect(), t.card);
  if (m_strips.empty()) {
    p.setFont(faceOf(14));
    p.setPen(t.inkSoft);
    p.drawText(QRectF(rect()).adjusted(30, 20, -30, -20), Qt::AlignCenter | Qt::TextWordWrap, m_why);
    return paintFocus(p);
  }
  paintTime(p);
  for (std::size_t i = 0; i < m_strips.size(); ++i)
    paintStrip(p, i);
  paintNow(p);
  paintMarks(p);
  paintFocus(p);
}

} // namespace butte::app
