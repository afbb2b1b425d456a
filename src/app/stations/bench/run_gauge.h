#pragma once
#include <QWidget>

namespace butte::app {

/// How far a weight has come: filled from the left, with the band in which it is right. The last tenth is
/// drawn as wide as the nine before it, for a slow hand.
class RunGauge : public QWidget {
public:
  explicit RunGauge(QWidget* parent = nullptr);
  /// In any one unit; `tolerance` either way.
  void show(double has, double wanted, double tolerance);
  /// Where a share of what is wanted stands, 0 to 1 of the width.
  static double placeOf(double share);

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  double m_has = 0, m_wanted = 1, m_tolerance = 0;
};

} // namespace butte::app
