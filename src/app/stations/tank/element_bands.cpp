#include "stations/tank/element_bands.h"

#include "paint/hatch.h"
#include "paint/line_of_text.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "stations/tank/tank_words.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QHelpEvent>
#include <QPainter>
#include <QToolTip>
#include <algorithm>
#include <cmath>

namespace butte::app {

using core::Nutrient;

namespace {
constexpr int elementLine = 17, elementHead = 19;
constexpr double elementName = 54, elementFigure = 92, elementAhead = 104;
} // namespace

ElementBands::ElementBands(QWidget* parent) : QWidget(parent) {
  setObjectName("elementBands");
  setAccessibleName(tr("every element in the tank"));
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Minimum);
}

void ElementBands::clear() {
  m_lines.clear();
  setAccessibleDescription({});
  updateGeometry();
  update();
}

QSize ElementBands::sizeHint() const {
  return {420, elementHead + elementLine * static_cast<int>(std::max<std::size_t>(m_lines.size(), 4)) + 4};
}

void ElementBands::show(const TankStory& story) {
  m_lines.clear();
  const auto* now = story.now();
  if (!now) return clear();
  QStringList said;
  for (const auto n : core::keptNutrients) {
    const auto& stands = now->of(n);
    const double feed = story.request.plan.refill.milligramsPerLitre.of(n);
    if (stands.high <= 0 && feed <= 0) continue;
    Line line;
    line.nutrient = n;
    line.stands = stands;
    line.water = std::min(story.request.water.milligramsPerLitre.of(n), stands.value);
    for (const auto& row : story.request.rows)
      if (row.nutrient == n) {
        line.wanted = true;
        line.low = std::max(row.bandLow(), 0.0);
        line.high = row.bandHigh();
      }
    for (const auto& cap : story.request.caps)
      if (cap.nutrient == n) {
        line.capped = line.wanted = true;
        line.low = 0;
        line.high = cap.milligramsPerLitre;
      }
    line.most = std::max({1.3 * stands.high, line.wanted ? 1.6 * line.high : 0.0, 1.3 * feed, 1e-6});
    line.figure = bandWords(stands);
    line.said = tr("%1 %2 mg/L").arg(shortName(n), line.figure);
    for (const auto& course : story.courses) {
      if (course.nutrient != n) continue;
      line.said += "; " + courseWords(course);
      line.trend = std::abs(course.perDayMgPerL) < 0.002 * std::max(stands.value, 1e-3) ? 0
                   : course.rises                                                       ? 1
                                                                                        : -1;
      line.trouble = course.outside;
      if (course.outside)
        line.ahead = tr("out of band");
      else if (course.leavesAfterDays)
        line.ahead = tr("out in %1 d").arg(localNumber(*course.leavesAfterDays, 0));
      else if (course.mayLeaveAfterDays)
        line.ahead = tr("maybe in %1 d").arg(localNumber(*course.mayLeaveAfterDays, 0));
      else
        line.ahead = tr("holds");
    }
    said << line.said;
    m_lines.push_back(std::move(line));
  }
  setAccessibleDescription(said.join(". "));
  updateGeometry();
  update();
}

QString ElementBands::lineText(Nutrient nutrient) const {
  for (const auto& line : m_lines)
    if (line.nutrient == nutrient) return line.said;
  return {};
}

bool ElementBands::event(QEvent* event) {
  if (event->type() != QEvent::ToolTip) return QWidget::event(event);
  const auto* help = static_cast<QHelpEvent*>(event);
  const int row = (help->pos().y() - elementHead) / elementLine;
  if (help->pos().y() < elementHead || row >= static_cast<int>(m_lines.size())) return true;
  QToolTip::showText(help->globalPos(), m_lines[static_cast<std::size_t>(row)].said, this);
  return true;
}

void ElementBands::paintLineOf(QPainter& p, const Line& line, const QRectF& row) const {
  const auto& t = theme();
  p.setFont(faceOf(13, true));
  p.setPen(t.ink);
  paintLine(p, QRectF(row.left(), row.top(), elementName, row.height()), Qt::AlignLeft | Qt::AlignVCenter,
            shortName(line.nutrient));
  const QRectF bar(row.left() + elementName, row.top() + 2,
                   std::max(row.width() - elementName - elementFigure - elementAhead - 8, 20.0),
                   row.height() - 4);
  const auto x = [&](double mg) { return bar.left() + bar.width() * std::clamp(mg / line.most, 0.0, 1.0); };
  p.fillRect(bar, t.page);
  if (line.wanted) {
    p.fillRect(QRectF(QPointF(x(line.low), bar.top()), QPointF(x(line.high), bar.bottom())), t.band);
    p.setPen(QPen(t.targetMark, 1));
    p.drawLine(QPointF(x(line.high), bar.top()), QPointF(x(line.high), bar.bottom()));
    if (!line.capped) p.drawLine(QPointF(x(line.low), bar.top()), QPointF(x(line.low), bar.bottom()));
  }
  if (line.water > 0) fillAsWater(p, QRectF(bar.left(), bar.center().y() - 2, x(line.water) - bar.left(), 4));
  p.setPen(QPen(line.trouble ? t.red : t.accent, 2));
  const double y = bar.center().y(), low = x(line.stands.low), high = x(line.stands.high);
  p.drawLine(QPointF(low, y), QPointF(high, y));
  for (const double end : {low, high})
    p.drawLine(QPointF(end, y - 3), QPointF(end, y + 3));
  p.setPen(Qt::NoPen);
  p.setBrush(line.trouble ? t.red : t.accent);
  p.drawEllipse(QPointF(x(line.stands.value), y), 4, 4);
  p.setFont(faceOf(12));
  p.setPen(t.ink);
  paintLine(p, QRectF(bar.right() + 4, row.top(), elementFigure, row.height()),
            Qt::AlignRight | Qt::AlignVCenter, line.figure);
  p.setPen(line.trouble ? t.red : t.inkSoft);
  const auto arrow = line.trend > 0 ? QString("↗ ") : line.trend < 0 ? QString("↘ ") : QString("→ ");
  if (!line.ahead.isEmpty())
    paintLine(p, QRectF(bar.right() + elementFigure + 12, row.top(), elementAhead, row.height()),
              Qt::AlignLeft | Qt::AlignVCenter, arrow + line.ahead);
}

void ElementBands::paintEvent(QPaintEvent*) {
  const auto& t = theme();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  p.setFont(faceOf(12));
  p.setPen(t.inkSoft);
  const double right = width();
  paintLine(p, QRectF(0, 0, right - elementFigure - elementAhead, elementHead),
            Qt::AlignLeft | Qt::AlignVCenter, tr("In the tank now"));
  paintLine(p, QRectF(right - elementAhead - elementFigure - 8, 0, elementFigure + 4, elementHead),
            Qt::AlignRight | Qt::AlignVCenter, tr("mg/L, 9 in 10"));
  paintLine(p, QRectF(right - elementAhead, 0, elementAhead, elementHead), Qt::AlignLeft | Qt::AlignVCenter,
            tr("next two weeks"));
  double y = elementHead;
  for (const auto& line : m_lines) {
    paintLineOf(p, line, QRectF(0, y, right, elementLine));
    y += elementLine;
  }
}

} // namespace butte::app
