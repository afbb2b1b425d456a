#pragma once
#include <QPainterPath>
#include <QWidget>
#include <cstdint>

namespace butte::app {

/// A picture of marks over time. Wheel or + and - zoom, dragging or the arrow keys move, Home shows all; what
/// the marks are, the heirs know.
class TimePicture : public QWidget {
  Q_OBJECT

public:
  explicit TimePicture(QWidget* parent = nullptr);
  /// The stretch of time in view, in seconds since 1970.
  std::int64_t from() const { return m_from; }
  std::int64_t to() const { return m_to; }
  virtual int markCount() const = 0;
  /// Centre of a mark in this widget, for clicks.
  virtual QPointF placeOf(int mark) const = 0;

protected:
  static constexpr std::int64_t day = 86400;

  /// The stretch changed: fetches what is in view.
  virtual void fetch() = 0;
  virtual void showAll() = 0;
  /// What a mark says when it is pointed at; and that it was pressed.
  virtual void explain(int mark) = 0;
  virtual void choose(int mark) = 0;

  void setStretch(std::int64_t from, std::int64_t to);
  /// The least time that one mark should stand for, so that marks do not cover each other.
  std::int64_t secondsPerMark() const;
  QRectF plot() const;
  double xOf(double seconds) const;
  int hovered() const { return m_hover; }
  void forgetHovered() { m_hover = -1; }
  /// Days, months or years below the plot.
  void paintTime(QPainter& painter) const;
  void paintFocus(QPainter& painter) const;

  void mouseMoveEvent(QMouseEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;

private:
  void zoom(double factor, double at);
  void move(std::int64_t seconds);
  int markAt(const QPointF& point) const;
  std::int64_t m_from = 0, m_to = 1;
  int m_hover = -1;
  QPointF m_pressed;
  bool m_dragged = false;
};

inline constexpr int markShapes = 4;
/// A mark's outline: disc, square, triangle, diamond; told apart without colour.
QPainterPath markShape(int shape, const QPointF& centre, double radius);

} // namespace butte::app
