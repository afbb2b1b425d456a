#pragma once
#include "chem/nutrient.h"
#include "target/target.h"

#include "target/safe_ceilings.h"

#include <QWidget>
#include <vector>

namespace butte::app {

class FormulaEditor;

/// One lane per element: the water's share and each product's share stand end to end against target and band.
/// Lanes are scaled to their own target, so full is right, short and over are seen at a glance. The target
/// mark can be dragged, or moved with the arrow keys on the lane that has the focus.
class ElementLanes : public QWidget {
  Q_OBJECT

public:
  explicit ElementLanes(FormulaEditor& editor, QWidget* parent = nullptr);

  /// Lights one product's shares in every lane; empty for none.
  void light(const std::string& productId);
  QSize sizeHint() const override { return {820, 330}; }
  QSize minimumSizeHint() const override { return {460, 230}; }

  /// What a lane shows, as text (for screen readers and tests): "K 205 of 205 mg/L, in band".
  QString laneText(core::Nutrient nutrient) const;
  /// Where the upper edge of a lane's band stands; a null point when there is none.
  QPoint bandEdge(core::Nutrient nutrient) const;
  /// Where a lane's target mark stands, in widget coordinates; a null point when there is none.
  QPoint targetMark(core::Nutrient nutrient) const;

signals:
  void lit(const std::string& productId);
  void explained(const QString& words);

protected:
  void paintEvent(QPaintEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void leaveEvent(QEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  bool event(QEvent* event) override;

private:
  struct Share {
    std::string product; ///< empty: the water
    double milligramsPerLitre = 0;
  };
  struct Lane {
    core::Nutrient nutrient{};
    const core::TargetRow* target = nullptr;
    double result = 0;
    double plusMinus = 0;          ///< two standard deviations of all that may be off
    std::optional<double> overlay; ///< mg/L of the formula laid over
    std::vector<Share> shares;
    QRectF box; ///< the bar's room
    bool small = false;
    const core::HarmfulLevel* harmful = nullptr; ///< where it harms plants
    double scaleMax = 1;                         ///< mg/L at the right end of the box
  };
  /// What a lane's picture depends on: words, and edges in half pixels. A key repaints the lanes that it
  /// changed.
  struct Seen {
    QString words;
    std::vector<int> edges;
    std::vector<std::string> products;
    bool operator==(const Seen&) const = default;
  };

  void rebuild();
  void layOut();
  Seen seenOf(const Lane& lane) const;
  QRect roomOf(const Lane& lane) const; ///< all that is painted for it
  void updateChanged();
  Lane makeLane(core::Nutrient nutrient, bool small) const;
  void paintHead(QPainter& painter) const;
  void paintLane(QPainter& painter, const Lane& lane) const;
  void paintBar(QPainter& painter, const Lane& lane) const;
  void paintWhisker(QPainter& painter, const Lane& lane, const QRectF& bar) const;
  void paintFigures(QPainter& painter, const Lane& lane) const;
  void paintVerdict(QPainter& painter, const Lane& lane, const QRectF& room) const;
  double xOf(const Lane& lane, double milligramsPerLitre) const;
  const Lane* laneAt(const QPointF& at) const;
  const Share* shareAt(const Lane& lane, double x) const;
  void moveTarget(core::Nutrient nutrient, double milligramsPerLitre);

  FormulaEditor& m_editor;
  std::vector<Lane> m_lanes;
  std::vector<Seen> m_seen; ///< parallel to m_lanes
  QString m_head;           ///< the words above them
  std::string m_lit;
  std::size_t m_focused = 0;
  /// Both edges of the band move together: it stays centred on the target.
  void moveBand(core::Nutrient nutrient, double percent);
  bool onMark(const Lane& lane, double x) const;
  bool onBandEdge(const Lane& lane, double x) const;
  void paintOverlay(QPainter& painter, const Lane& lane) const;
  QString errorWords(core::Nutrient nutrient) const;
  QString headWords() const;
  QString wantedWords(const Lane& lane) const;
  static QString figureText(double milligramsPerLitre);

  std::optional<core::Nutrient> m_dragged, m_bandDragged;
  double m_dragScale = 1;
  QRectF m_dragBox;
};

} // namespace butte::app
