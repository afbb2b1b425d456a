#pragma once
#include <QPainter>
#include <QString>
#include <functional>
#include <vector>

/// Axes of charts: from values to pixels and back, round marks, and how marks are painted.
namespace butte::app {

struct Axis {
  double least = 0, most = 1; ///< values
  double from = 0, to = 1;    ///< pixels where they lie; `to` may be the smaller
  bool isLogarithmic = false; ///< then least and most are above 0

  double at(double value) const;
  double valueAt(double pixel) const;
};

/// 1, 2 or 5 times a power of ten, so that about so many marks stand on an axis of this length.
double roundStep(double range, int marks);
/// Multiples of `step` on the axis, its ends included.
std::vector<double> marksOf(const Axis& axis, double step);
/// As many decimals as tell two marks apart.
int decimalsOf(double step);

using MarkText = std::function<QString(double value)>;

/// Lines across the plot at the marks of an upright axis, each with its text to the left.
void paintRungs(QPainter& painter, const QRectF& plot, const Axis& axis, const std::vector<double>& marks,
                const MarkText& text);
/// Short lines below the plot at the marks of a lying axis, each with its text under it.
void paintTicks(QPainter& painter, const QRectF& plot, const Axis& axis, const std::vector<double>& marks,
                const MarkText& text);

} // namespace butte::app
