#pragma once
#include <QBoxLayout>
#include <QEvent>
#include <QWidget>
#include <algorithm>

namespace butte::app {

/// Parts of a page beside each other, or below each other where they do not go in.
class BesideOrBelow : public QWidget {
public:
  explicit BesideOrBelow(int gap, QWidget* parent = nullptr)
      : QWidget(parent), m_row(new QBoxLayout(QBoxLayout::LeftToRight, this)) {
    m_row->setContentsMargins(0, 0, 0, 0);
    m_row->setSpacing(gap);
  }

  void add(QLayout* part, int share) {
    m_parts.append(part);
    m_row->addLayout(part, share);
  }

  void add(QWidget* part, int share) {
    auto* inside = new QVBoxLayout;
    inside->addWidget(part);
    add(inside, share);
  }

  /// As narrow as its widest part alone, for then they stand below each other.
  QSize minimumSizeHint() const override {
    QSize out = m_row->minimumSize();
    out.setWidth(0);
    for (const auto* part : m_parts)
      out.setWidth(std::max(out.width(), part->minimumSize().width()));
    return out;
  }

protected:
  bool event(QEvent* event) override {
    if (event->type() == QEvent::LayoutRequest || event->type() == QEvent::Resize) turn();
    return QWidget::event(event);
  }

private:
  void turn() {
    int beside = m_row->spacing() * static_cast<int>(m_parts.size() - 1);
    for (const auto* part : m_parts)
      beside += part->minimumSize().width();
    const auto way = width() < beside ? QBoxLayout::TopToBottom : QBoxLayout::LeftToRight;
    if (way == m_row->direction()) return;
    m_row->setDirection(way);
    updateGeometry(); // it wants another height now
  }

  QBoxLayout* m_row;
  QList<QLayout*> m_parts;
};

} // namespace butte::app
