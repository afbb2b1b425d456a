#pragma once
#include <QWidget>
#include <vector>

namespace butte::app {

/// The sources of a water as one bar: each as wide as its share. A border is dragged (or moved with the arrow
/// keys) to shift share from one to its neighbour; a click takes a source in hand.
class BlendBar : public QWidget {
  Q_OBJECT

public:
  explicit BlendBar(QWidget* parent = nullptr);
  struct Segment {
    QString name, detail;
    double percent = 100;
    bool treated = false;
    bool operator==(const Segment&) const = default;
  };
  void show(std::vector<Segment> segments, std::size_t inHand);
  QSize sizeHint() const override { return {600, 56}; }
  QSize minimumSizeHint() const override { return {200, 56}; }
  /// Left edge of a segment, for hands and tests.
  double edge(std::size_t index) const;
  double leastWidth() const;
  QString m_hint; ///< what a hand can do here

signals:
  void chosen(std::size_t index);
  /// `done`: the hand let go.
  void sharesMoved(const std::vector<double>& percent, bool done);

protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

private:
  int borderAt(double x) const;
  void shift(std::size_t border, double percent, bool done);
  std::vector<Segment> m_segments;
  std::size_t m_inHand = 0;
  int m_dragged = -1;
};

} // namespace butte::app
