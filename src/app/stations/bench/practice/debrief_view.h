#pragma once
#include "practice/debrief.h"

#include <QWidget>

class QLabel;
class QListWidget;

namespace butte::app {

class BenchEdits;
class DeviationPicture;
class PracticePicture;
class UnitsShown;

/// How a practice run went: its points, the feed that would truly have come of it, and each moment again.
class DebriefView : public QWidget {
  Q_OBJECT

public:
  DebriefView(const BenchEdits& run, const UnitsShown& units, QWidget* parent = nullptr);
  void refresh();

private:
  void showMoment(int index);
  void showFeed();

  const BenchEdits& m_run;
  const UnitsShown& m_units;
  core::Debrief m_debrief;
  QLabel *m_points, *m_parts, *m_moment;
  QListWidget* m_list;
  PracticePicture* m_picture;
  DeviationPicture* m_feed;
};

} // namespace butte::app
