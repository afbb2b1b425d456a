#pragma once
#include "paint/axes.h"

#include <QWidget>
#include <vector>

namespace butte::app {

/// How strong the stocks are, as one control: a ruler from thin to strong with every tank's ceiling on it.
/// The handle is dragged, or moved with the arrow keys.
class StrengthRuler : public QWidget {
  Q_OBJECT

public:
  struct Mark {
    QString name;
    double ceiling = 0; ///< factor; 0: not known
    double safe = 0;    ///< the ceiling less the margin
    QString limitedBy;
    bool operator==(const Mark&) const; ///< looks the same
  };

  explicit StrengthRuler(QWidget* parent = nullptr);
  void show(double factor, std::vector<Mark> marks);
  /// Where a factor stands, in the widget's own pixels.
  Axis axis() const;
  double xOf(double factor) const;
  QSize sizeHint() const override { return {600, 64}; }

signals:
  void factorMoved(double factor, bool done);

protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

private:
  double factorAt(double x) const;
  void paintScale(QPainter& painter) const;
  void paintMarks(QPainter& painter) const;
  double m_factor = 100;
  std::vector<Mark> m_marks;
  bool m_dragging = false;
};

} // namespace butte::app
