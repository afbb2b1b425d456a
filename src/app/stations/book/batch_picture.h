#pragma once
#include "book/store.h"

#include <QWidget>
#include <vector>

namespace butte::app {

class BookDesk;

/// Batches over time: each mark stands as high as its worst weighing is off plan; its shape tells the crop,
/// its size how many batches it stands for. Wheel or + and - zoom, dragging or the arrow keys move, Home
/// shows all.
class BatchPicture : public QWidget {
  Q_OBJECT

public:
  explicit BatchPicture(BookDesk& desk, QWidget* parent = nullptr);
  void show(const book::BatchFilter& filter);
  /// The stretch of time in view.
  book::Moment from() const { return {m_from}; }
  book::Moment to() const { return {m_to}; }
  int markCount() const { return static_cast<int>(m_buckets.size()); }
  /// Centre of a mark in this widget, for clicks.
  QPointF placeOf(int mark) const;

signals:
  void stretchChosen(book::Moment from, book::Moment before);
  void explained(const QString& words);

protected:
  void paintEvent(QPaintEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;

private:
  void fetch();
  void showAll();
  void zoom(double factor, double at);
  void move(std::int64_t seconds);
  int markAt(const QPointF& point) const;
  double xOf(double seconds) const;
  double yOf(double percent) const;
  int shapeOf(const std::string& crop) const;
  void paintScale(QPainter& painter) const;
  void paintMark(QPainter& painter, std::size_t mark) const;
  QRectF plot() const;
  QString wordsOf(const book::BatchBucket& bucket) const;

  BookDesk& m_desk;
  book::BatchFilter m_filter;
  std::vector<book::BatchBucket> m_buckets;
  std::vector<std::string> m_crops;
  std::int64_t m_from = 0, m_to = 1, m_width = 1;
  double m_top = 6;
  int m_hover = -1;
  QPointF m_pressed;
  bool m_dragged = false;
};

} // namespace butte::app
