#pragma once
#include "water/water.h"

#include <QWidget>
#include <string>
#include <vector>

namespace butte::app {

/// How a source drifted from report to report: one small line each for EC, alkalinity, calcium and sodium,
/// with the first and the latest figure.
class DriftChart : public QWidget {
  Q_OBJECT

public:
  explicit DriftChart(QWidget* parent = nullptr);
  struct Point {
    std::string date;
    core::Water water;
  };
  void show(std::vector<Point> points);
  QSize sizeHint() const override { return {400, 78}; }
  QString description() const { return accessibleDescription(); }

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  std::vector<Point> m_points;
};

} // namespace butte::app
