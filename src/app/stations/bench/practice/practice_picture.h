#pragma once
#include "practice/truth_state.h"

#include <QStringList>
#include <QWidget>

namespace butte::app {

/// The practice bench as the eye sees it: the cup on the scale, each vessel with its water and what lies
/// undissolved on its floor. It does not say which salt is which.
class PracticePicture : public QWidget {
  Q_OBJECT

public:
  explicit PracticePicture(QWidget* parent = nullptr);
  /// `wantedInCup`: when it is full to the rim.
  void show(const core::RunPlan& plan, const core::TrueState& state, core::Mass wantedInCup,
            const QString& display);
  QSize sizeHint() const override { return {360, 170}; }
  QSize minimumSizeHint() const override { return {240, 150}; }

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  struct Vessel {
    QString name;
    double full = 0;   ///< of its mark
    double strong = 0; ///< of what will be in it, dissolved
    double grains = 0; ///< of what went in, undissolved
  };
  void paintScale(QPainter& p, const QRectF& room) const;
  void paintVessel(QPainter& p, const QRectF& room, const Vessel& vessel) const;

  std::vector<Vessel> m_vessels;
  double m_cup = 0;
  QString m_display;
};

} // namespace butte::app
