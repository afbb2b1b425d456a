#pragma once
#include "scale/weigh_watch.h"

#include <QWidget>
#include <optional>

class QLabel;

namespace butte::app {

class BenchEdits;
class RunGauge;
class UnitsShown;

/// The one figure of a step, readable at a metre, what it is, and how far the weight has come.
class RunFigure : public QWidget {
  Q_OBJECT

public:
  explicit RunFigure(QWidget* parent = nullptr);
  /// As planned and told; `live`: as the scale shows it.
  void refresh(const BenchEdits& run, const UnitsShown& units, const std::optional<devices::WatchNow>& live);
  /// For a screen that shows nothing else.
  void setLarge(bool large);

private:
  void showLive(const BenchEdits& run, const devices::WatchNow& now);

  QLabel *m_figure, *m_note;
  RunGauge* m_gauge;
};

} // namespace butte::app
