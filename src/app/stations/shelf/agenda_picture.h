#pragma once
#include "document/shelf_story.h"

#include <QWidget>
#include <optional>
#include <vector>

namespace butte::app {

/// This week and the next, a room for each day, with what is to be done in it as cards that can be dragged to
/// another day; what is late stands on top.
class AgendaPicture : public QWidget {
  Q_OBJECT

public:
  explicit AgendaPicture(QWidget* parent = nullptr);
  void show(const SharedShelfStory& story);
  /// Index into the agenda's dues; -1: none.
  int chosen() const { return m_chosen; }
  void choose(int due);
  /// Where a card stands; empty where it is not on these days.
  QRectF cardOf(int due) const;
  QRectF roomOf(core::Day day) const;
  QSize sizeHint() const override { return QSize(760, 420); }
  QSize minimumSizeHint() const override { return QSize(460, 300); }

signals:
  void picked(int due);
  void doneAsked(int due);
  void movedTo(int due, const QDate& day);

protected:
  void paintEvent(QPaintEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  bool event(QEvent* event) override;

private:
  struct Card {
    int due = 0;
    QRectF room;
    QString text;
    bool isLate = false;
  };
  void layOut();
  void paintDay(QPainter& painter, core::Day day) const;
  void paintCard(QPainter& painter, const Card& card, const QRectF& room) const;
  void step(int by);
  int cardAt(const QPointF& point) const; ///< index into the cards; -1: none
  std::optional<core::Day> dayAt(const QPointF& point) const;
  double lateHeight() const;

  SharedShelfStory m_story = std::make_shared<const ShelfStory>();
  std::vector<Card> m_cards;
  std::vector<std::pair<core::Day, int>> m_more; ///< days that have cards without room, and how many
  int m_chosen = -1, m_dragged = -1;
  QPointF m_pressed, m_at;
};

} // namespace butte::app
