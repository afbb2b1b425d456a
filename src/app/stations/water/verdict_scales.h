#pragma once
#include "water/verdict.h"

#include <QWidget>

namespace butte::app {

class UnitsShown;

/// What a water is good for, at one look: a line for each measured figure, all with the same three stretches
/// (fine, watch, too high), the figure's mark where it stands between its own limits, its unsure part as a
/// whisker. A press tells the limits and where they come from.
class VerdictScales : public QWidget {
  Q_OBJECT

public:
  explicit VerdictScales(const UnitsShown& units, QWidget* parent = nullptr);
  void show(const std::vector<core::Verdict>& verdicts);

  QSize sizeHint() const override { return minimumSizeHint(); }
  QSize minimumSizeHint() const override;

  /// Where a figure of a verdict stands from left to right, 0 to 1: the stretches end at `watchFrom`,
  /// `tooHighFrom` and 1, whatever the limits are.
  static double placeOf(const core::Verdict& verdict, double value);
  static constexpr double watchFrom = 0.5, tooHighFrom = 0.8;

signals:
  /// The limits of a line and their source.
  void explained(const QString& words);

protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  bool event(QEvent* event) override;

private:
  struct Line {
    core::Verdict verdict;
    QString name, figure;
  };
  int lineAt(double y) const;
  QString wordsOf(const Line& line) const;
  QString withSource(const Line& line) const;
  void paintLine(QPainter& painter, const Line& line, double y, bool inHand) const;
  void choose(int line);

  const UnitsShown& m_units;
  std::vector<Line> m_lines;
  int m_inHand = 0;
};

} // namespace butte::app
