#pragma once
#include "chem/ions.h"
#include "water/water.h"

#include <QWidget>

namespace butte::app {

/// The ion balance as two facing stacks, cations left and anions right, in meq/L to one scale. A gap stands
/// at the top of the shorter one, hatched where it is more than a report may show.
class IonStacks : public QWidget {
  Q_OBJECT

public:
  explicit IonStacks(QWidget* parent = nullptr);
  void show(const core::Water& water);
  QSize sizeHint() const override { return {400, 210}; }
  QSize minimumSizeHint() const override { return {372, 130}; }
  /// What the picture says, for screen readers and tests.
  QString description() const { return accessibleDescription(); }

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  void paintStack(QPainter& p, bool cations, double top, double perMeq) const;
  core::IonBalance m_ions;
  double m_plusMinus = 0;
};

} // namespace butte::app
