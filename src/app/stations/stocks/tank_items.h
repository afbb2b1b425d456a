#pragma once
#include "paint/hatch.h"
#include <QColor>

#include <QWidget>
#include <optional>
#include <string>
#include <vector>

namespace butte::app {

/// The salts of one tank as rows that can be dragged into another: weight, name, how near to falling out.
class TankItems : public QWidget {
  Q_OBJECT

public:
  struct Row {
    std::string product;
    ProductLook look;
    QString weight, name;
    std::optional<double> saturation; ///< 1: it begins to crystallise
    bool knows = true;                ///< false: its solubility is not known
    bool byHand = false, falls = false;
    bool operator==(const Row&) const; ///< looks the same
  };

  explicit TankItems(QWidget* parent = nullptr);
  void show(std::vector<Row> rows);
  const std::vector<Row>& rows() const { return m_rows; }
  QSize minimumSizeHint() const override;
  /// Middle of a product's row, in the widget's pixels; an invalid point where it is not here.
  QPoint rowMiddle(const std::string& product) const;

signals:
  /// A row was let go at this place of the screen; `half` with Control held.
  void dropped(const std::string& product, const QPoint& global, bool half);
  void dragging(const QPoint& global); ///< a null point when it is over
  /// By key: one tank to the left (-1) or right (+1).
  void stepped(const std::string& product, int by, bool half);
  void toRules(const std::string& product);

protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;

private:
  int rowAt(double y) const;
  double rowHeight() const;
  double widestWeight(int size) const;

  QString m_hint; ///< what a hand can do here
  std::vector<Row> m_rows;
  int m_inHand = 0;
  bool m_pressed = false, m_dragged = false;
  QPoint m_from;
};

} // namespace butte::app
