#pragma once
#include "document/tank_story.h"

#include <QString>
#include <QWidget>
#include <vector>

namespace butte::app {

/// Every element in the tank now: the band in which it lies nine times in ten, over the band in which it
/// should lie, the water's own share hatched; its figure; and where it is heading.
class ElementBands : public QWidget {
  Q_OBJECT

public:
  explicit ElementBands(QWidget* parent = nullptr);
  void show(const TankStory& story);
  void clear();
  /// "K 182 ± 24 mg/L, falls 4 mg/L a day ...": a line of the picture.
  QString lineText(core::Nutrient nutrient) const;
  QSize sizeHint() const override;
  QSize minimumSizeHint() const override { return {350, sizeHint().height()}; }

protected:
  void paintEvent(QPaintEvent* event) override;
  bool event(QEvent* event) override;

private:
  struct Line {
    core::Nutrient nutrient{};
    core::Band stands;
    double water = 0, low = 0, high = 0, most = 1; ///< mg/L; `most` is the bar's end
    bool wanted = false, capped = false;
    QString figure, ahead, said;
    int trend = 0;
    bool trouble = false;
  };
  void paintLineOf(QPainter& painter, const Line& line, const QRectF& row) const;
  std::vector<Line> m_lines;
};

} // namespace butte::app
