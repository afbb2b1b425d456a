#include "stations/water/drift_chart.h"

#include "measures.h"
#include "paint/axes.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "units/constants.h"
#include "water/blend.h"
#include "wording/tr.h"

#include <QDate>
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <functional>
#include <optional>

namespace butte::app {

namespace {

struct Line {
  const char *name, *unit;
  std::function<std::optional<double>(const core::Water&)> of;
};
const std::vector<Line>& lines() {
  static const std::vector<Line> all{
      {"EC", nullptr, [](const core::Water& w) { return w.conductivityMsPerCm; }}, // as the person has it
      {QT_TRANSLATE_NOOP("butte", "alkalinity"), QT_TRANSLATE_NOOP("butte", "mg/L as CaCO₃"),
       [](const core::Water& w) {
         return w.alkalinityMeqPerL
                    ? std::optional(*w.alkalinityMeqPerL * core::constant::milligramsCaCO3PerMeq)
                    : std::nullopt;
       }},
      {QT_TRANSLATE_NOOP("butte", "calcium"), "mg/L",
       [](const core::Water& w) { return core::amountOf(core::BlendGoal::Calcium, w); }},
      {QT_TRANSLATE_NOOP("butte", "sodium"), "mg/L",
       [](const core::Water& w) { return core::amountOf(core::BlendGoal::Sodium, w); }}};
  return all;
}

QString figureShown(const Line& line, double value) {
  if (line.unit) return localFigure(value);
  return QString::fromStdString(words::measures().digits(core::Conductivity::fromMilliSiemensPerCm(value)));
}

QString unitOf(const Line& line) {
  return line.unit ? app::tr(line.unit) : QString::fromStdString(words::measures().conductivityUnitName());
}

double dayOf(const std::string& date) {
  return static_cast<double>(
      QDate::fromString(QString::fromStdString(date).left(10), Qt::ISODate).toJulianDay());
}

} // namespace

DriftChart::DriftChart(QWidget* parent) : QWidget(parent) {
  setObjectName("driftChart");
  setAccessibleName(tr("reports of this source over time"));
  setFixedHeight(78);
}

void DriftChart::show(std::vector<Point> points) {
  m_points = std::move(points);
  QStringList words;
  for (const auto& line : lines()) {
    if (m_points.size() < 2) break;
    const auto first = line.of(m_points.front().water), last = line.of(m_points.back().water);
    if (first && last)
      words << tr("%1 %2 to %3 %4")
                   .arg(app::tr(line.name), figureShown(line, *first), figureShown(line, *last),
                        unitOf(line));
  }
  setAccessibleDescription(words.join(", "));
  setVisible(m_points.size() >= 2);
  update();
}

void DriftChart::paintEvent(QPaintEvent*) {
  if (m_points.size() < 2) return;
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const auto& t = theme();
  const double from = dayOf(m_points.front().date), to = std::max(dayOf(m_points.back().date), from + 1);
  const double rowHeight = height() / static_cast<double>(lines().size());
  const double left = 78, right = width() - 150.0;
  const Axis days{from, to, left, right};
  double top = 0;
  for (const auto& line : lines()) {
    double most = 1e-9;
    for (const auto& point : m_points)
      most = std::max(most, line.of(point.water).value_or(0));
    const Axis values{0, most, top + rowHeight - 3, top + 3};
    QPainterPath path;
    QPointF last;
    for (const auto& point : m_points) {
      const auto value = line.of(point.water);
      if (!value) continue;
      last = {days.at(dayOf(point.date)), values.at(*value)};
      path.elementCount() == 0 ? path.moveTo(last) : path.lineTo(last);
      p.setPen(Qt::NoPen);
      p.setBrush(t.accent);
      p.drawEllipse(last, 2.2, 2.2);
    }
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.accent, 1.5));
    p.drawPath(path);
    p.setFont(faceOf(12));
    p.setPen(t.inkSoft);
    p.drawText(QRectF(0, top, left - 6, rowHeight), Qt::AlignLeft | Qt::AlignVCenter, app::tr(line.name));
    const auto first = line.of(m_points.front().water), now = line.of(m_points.back().water);
    p.setPen(t.ink);
    if (first && now)
      p.drawText(
          QRectF(right + 8, top, 146, rowHeight), Qt::AlignLeft | Qt::AlignVCenter,
          QString("%1 → %2 %3")
              .arg(figureShown(line, *first), figureShown(line, *now), unitOf(line).section(' ', 0, 0)));
    top += rowHeight;
  }
}

} // namespace butte::app
