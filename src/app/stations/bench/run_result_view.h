#pragma once
#include "run/run_result.h"

#include <QWidget>
#include <functional>

class QLabel;
class QPushButton;

namespace butte::app {

class BenchEdits;
class DeviationPicture;
class UnitsShown;

/// What a run came to: the verdict and what to look at first, each element against its plan with its +-, each
/// weight; of bags how evenly they are filled.
class RunResultView : public QWidget {
  Q_OBJECT

public:
  RunResultView(const BenchEdits& run, const UnitsShown& units, QWidget* parent = nullptr);
  void refresh();

signals:
  void labelsAsked(const QStringList& labels);
  /// What was weighed for a vessel that is kept has gone into it.
  void tankLogAsked();

private:
  void showBatch();
  void showBags();

  const BenchEdits& m_run;
  const UnitsShown& m_units;
  QLabel *m_verdict, *m_first, *m_weights;
  DeviationPicture* m_picture;
  QPushButton *m_labels, *m_tankLog;
};

} // namespace butte::app
