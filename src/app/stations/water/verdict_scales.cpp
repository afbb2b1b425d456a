#include "stations/water/verdict_scales.h"

#include "paint/fitted_text.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "stations/water/verdict_figures.h"
#include "wording/tr.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>
#include <algorithm>

namespace butte::app {

using core::Verdict;
using core::VerdictLevel;

namespace {
constexpr double headHeight = 16, lineHeight = 20, figureWidth = 108, shareOfNames = 0.34;

QColor colourOf(VerdictLevel level) {
  return level == VerdictLevel::TooHigh ? theme().red
         : level == VerdictLevel::Watch ? theme().amber
                                        : theme().accent;
}
} // namespace

VerdictScales::VerdictScales(const UnitsShown& units, QWidget* parent) : QWidget(parent), m_units(units) {
  setObjectName("verdictScales");
  setAccessibleName(tr("the water's figures against their limits"));
  setFocusPolicy(Qt::StrongFocus);
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

QSize VerdictScales::minimumSizeHint() const {
  const auto lines = static_cast<double>(m_lines.size());
  return {300, m_lines.empty() ? 0 : static_cast<int>(headHeight + lineHeight * lines + 4)};
}

void VerdictScales::show(const std::vector<Verdict>& verdicts) {
  const auto linesBefore = m_lines.size();
  m_lines.clear();
  QStringList said;
  for (const auto& v : verdicts) {
    if (!v.value || v.level == VerdictLevel::NotMeasured) continue;
    m_lines.push_back({v, verdictName(v), verdictFigure(v, m_units)});
    said << wordsOf(m_lines.back());
  }
  m_inHand = std::clamp(m_inHand, 0, std::max(0, static_cast<int>(m_lines.size()) - 1));
  setAccessibleDescription(said.join("\n"));
  setToolTip(said.join("\n")); // event() tells the one that is pointed at
  setVisible(!m_lines.empty());
  if (m_lines.size() != linesBefore) updateGeometry();
  update();
}

double VerdictScales::placeOf(const Verdict& v, double value) {
  const double fine = v.limit->fineBelow, high = v.limit->tooHighAbove;
  if (value > high) return high > 0 ? 1 - (1 - tooHighFrom) * high / value : 1;
  if (value > fine && high > fine)
    return watchFrom + (tooHighFrom - watchFrom) * (value - fine) / (high - fine);
  return fine > 0 ? watchFrom * std::clamp(value / fine, 0.0, 1.0) : 0;
}

QString VerdictScales::wordsOf(const Line& line) const {
  const auto& v = line.verdict;
  const auto level = v.level == VerdictLevel::TooHigh ? tr("too high")
                     : v.level == VerdictLevel::Watch ? tr("watch")
                                                      : tr("fine");
  return tr("%1 %2: %3. Fine to %4, too high above %5%6.")
      .arg(line.name, line.figure, level, inVerdictUnit(v, v.limit->fineBelow, m_units),
           inVerdictUnit(v, v.limit->tooHighAbove, m_units), verdictUnit(v, m_units));
}

QString VerdictScales::withSource(const Line& line) const {
  return wordsOf(line) + " " + QString::fromStdString(line.verdict.limit->source);
}

void VerdictScales::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const double left = width() * shareOfNames, wide = width() - left - figureWidth;
  painter.setFont(faceOf(11));
  painter.setPen(theme().inkSoft);
  const std::tuple<QString, double, double> stretches[] = {
      {tr("fine"), 0.0, watchFrom}, {tr("watch"), watchFrom, tooHighFrom}, {tr("high"), tooHighFrom, 1.0}};
  for (const auto& [name, from, to] : stretches)
    painter.drawText(QRectF(left + wide * from, 0, wide * (to - from), headHeight), Qt::AlignCenter, name);
  for (std::size_t i = 0; i < m_lines.size(); ++i)
    paintLine(painter, m_lines[i], headHeight + lineHeight * static_cast<double>(i),
              hasFocus() && static_cast<int>(i) == m_inHand);
}

void VerdictScales::paintLine(QPainter& p, const Line& line, double y, bool inHand) const {
  const auto& t = theme();
  const auto& v = line.verdict;
  const double left = width() * shareOfNames, wide = width() - left - figureWidth;
  const bool trouble = v.level != VerdictLevel::Fine;
  p.setFont(faceOf(12, trouble));
  p.setPen(t.ink);
  p.drawText(QRectF(0, y, left - 6, lineHeight), Qt::AlignLeft | Qt::AlignVCenter,
             fittedText(p.fontMetrics(), line.name, static_cast<int>(left) - 6));
  p.drawText(QRectF(left + wide + 8, y, figureWidth - 8, lineHeight), Qt::AlignLeft | Qt::AlignVCenter,
             fittedText(p.fontMetrics(), line.figure, static_cast<int>(figureWidth) - 8));
  const QRectF bar(left, y + 5, wide, lineHeight - 10);
  p.fillRect(QRectF(bar.left(), bar.top(), wide * watchFrom, bar.height()), t.band);
  p.fillRect(QRectF(left + wide * watchFrom, bar.top(), wide * (tooHighFrom - watchFrom), bar.height()),
             t.amberFill);
  p.fillRect(QRectF(left + wide * tooHighFrom, bar.top(), wide * (1 - tooHighFrom), bar.height()), t.redFill);
  const auto xOf = [&](double value) { return left + wide * placeOf(v, value); };
  const double x = xOf(*v.value), middle = bar.center().y();
  if (v.plusMinus > 0) {
    p.setPen(QPen(t.ink, 1.4));
    p.drawLine(QPointF(xOf(std::max(0.0, *v.value - v.plusMinus)), middle),
               QPointF(xOf(*v.value + v.plusMinus), middle));
  }
  p.setPen(QPen(t.card, 1.5));
  p.setBrush(colourOf(v.level));
  // Its shape says the level too, for those who see no difference between the colours.
  if (v.level == VerdictLevel::TooHigh)
    p.drawPolygon(QPolygonF{{x, middle - 7}, {x + 7, middle + 6}, {x - 7, middle + 6}});
  else if (v.level == VerdictLevel::Watch)
    p.drawPolygon(QPolygonF{{x, middle - 7}, {x + 7, middle}, {x, middle + 7}, {x - 7, middle}});
  else
    p.drawEllipse(QPointF(x, middle), 5.5, 5.5);
  if (!inHand) return;
  p.setBrush(Qt::NoBrush);
  p.setPen(QPen(t.accent, 1, Qt::DotLine));
  p.drawRect(QRectF(0.5, y + 0.5, width() - 1, lineHeight - 1));
}

int VerdictScales::lineAt(double y) const {
  const int line = static_cast<int>((y - headHeight) / lineHeight);
  return y >= headHeight && line < static_cast<int>(m_lines.size()) ? line : -1;
}

void VerdictScales::choose(int line) {
  if (line < 0 || line >= static_cast<int>(m_lines.size())) return;
  m_inHand = line;
  emit explained(withSource(m_lines[static_cast<std::size_t>(line)]));
  update();
}

void VerdictScales::mousePressEvent(QMouseEvent* event) {
  choose(lineAt(event->position().y()));
}

void VerdictScales::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Down) return choose(m_inHand + 1);
  if (event->key() == Qt::Key_Up) return choose(m_inHand - 1);
  if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Space) return choose(m_inHand);
  QWidget::keyPressEvent(event);
}

bool VerdictScales::event(QEvent* event) {
  if (event->type() != QEvent::ToolTip) return QWidget::event(event);
  const auto* help = static_cast<QHelpEvent*>(event);
  const int line = lineAt(help->pos().y());
  if (line < 0) {
    QToolTip::hideText();
    return true;
  }
  QToolTip::showText(help->globalPos(), withSource(m_lines[static_cast<std::size_t>(line)]), this);
  return true;
}

} // namespace butte::app
