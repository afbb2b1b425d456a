#pragma once
#include "document/tank_story.h"

#include <QString>
#include <QWidget>
#include <vector>

namespace butte::app {

class UnitsShown;

/// What could be done now, side by side: a line each, and what it makes of every element, of EC and pH, right
/// away and a week later. Arrow keys or a press choose a line; what chooses nothing says why.
class AdviceMatrix : public QWidget {
  Q_OBJECT

public:
  explicit AdviceMatrix(UnitsShown& units, QWidget* parent = nullptr);
  void show(const TankStory& story);
  void clear();
  int chosen() const { return m_chosen; } ///< index into the story's advice; -1: none
  void choose(int advice);
  /// "N +3 %, K -12 % ..." of a line, as it is painted.
  QString lineText(int advice) const;
  QSize sizeHint() const override;
  QSize minimumSizeHint() const override;

signals:
  void picked(int advice);
  void taken(int advice); ///< Enter, or pressed twice

protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

private:
  struct Column {
    QString name;
    core::Nutrient nutrient{};
    enum class Kind { Element, Cap, Ec, Ph } kind = Kind::Element;
    double wanted = 0, band = 0; ///< of an element; the cap
  };
  struct Cell {
    QString now, later; ///< as painted; empty: nothing to say
    int side = 0;       ///< below, in, above what is wanted
  };
  struct Line {
    QString title, closed; ///< closed: why it is not open
    std::vector<Cell> cells;
  };
  Cell cellOf(const Column& column, const core::FeedContent& then, const core::FeedContent& week,
              const std::optional<core::ReservoirReadings>& reads,
              const std::optional<core::ReservoirReadings>& readsLater, const TankStory& story) const;
  void makeColumns(const TankStory& story);
  void describe();
  QRectF lineRoom(int line) const; ///< 0: as it stands
  double columnWidth() const;
  void paintLineOf(QPainter& painter, int line) const;
  int adviceAt(const QPointF& point) const;

  UnitsShown& m_units;
  std::vector<Column> m_columns;
  std::vector<Line> m_lines; ///< the first: as it stands
  int m_chosen = -1;
};

} // namespace butte::app
