#include "paint/axes.h"

#include "paint/line_of_text.h"
#include "paint/theme.h"

#include <algorithm>
#include <cmath>

namespace butte::app {

double Axis::at(double value) const {
  const double share =
      isLogarithmic ? std::log(value / least) / std::log(most / least) : (value - least) / (most - least);
  return from + share * (to - from);
}

double Axis::valueAt(double pixel) const {
  const double share = (pixel - from) / (to - from);
  return isLogarithmic ? least * std::pow(most / least, share) : least + share * (most - least);
}

double roundStep(double range, int marks) {
  const double raw = range / marks;
  const double power = std::pow(10, std::floor(std::log10(raw)));
  const double share = raw / power;
  return power * (share < 1.5 ? 1 : share < 3.5 ? 2 : share < 7.5 ? 5 : 10);
}

std::vector<double> marksOf(const Axis& axis, double step) {
  constexpr double rounding = 1e-9;
  std::vector<double> out;
  for (double n = std::ceil(axis.least / step - rounding); n * step <= axis.most + rounding * step; ++n)
    out.push_back(n * step);
  return out;
}

int decimalsOf(double step) {
  return std::max(0, static_cast<int>(std::ceil(-std::log10(step) - 1e-9)));
}

void paintRungs(QPainter& painter, const QRectF& plot, const Axis& axis, const std::vector<double>& marks,
                const MarkText& text) {
  const auto& t = theme();
  for (const double mark : marks) {
    const double y = axis.at(mark);
    painter.setPen(QPen(t.line, 1));
    painter.drawLine(QPointF(plot.left(), y), QPointF(plot.right(), y));
    painter.setPen(t.inkSoft);
    paintLine(painter, QRectF(0, y - 8, plot.left() - 5, 16), Qt::AlignRight | Qt::AlignVCenter, text(mark));
  }
}

void paintTicks(QPainter& painter, const QRectF& plot, const Axis& axis, const std::vector<double>& marks,
                const MarkText& text) {
  constexpr double half = 30; // room for a text
  const auto& t = theme();
  const double rightmost = painter.device()->width() - 1.0;
  for (const double mark : marks) {
    const double x = axis.at(mark);
    painter.setPen(QPen(t.line, 1));
    painter.drawLine(QPointF(x, plot.bottom()), QPointF(x, plot.bottom() + 4));
    painter.setPen(t.inkSoft);
    // A text at an end moves inwards instead of being cut.
    const double need = painter.fontMetrics().horizontalAdvance(text(mark)) / 2.0;
    const double middle = std::clamp(x, std::min(need, rightmost), std::max(need, rightmost - need));
    paintLine(painter, QRectF(middle - half, plot.bottom() + 4, 2 * half, 14), Qt::AlignCenter, text(mark));
  }
}

} // namespace butte::app
