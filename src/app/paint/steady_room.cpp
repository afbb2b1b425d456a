#include "paint/steady_room.h"

#include <QEvent>
#include <QLabel>

namespace butte::app {

SteadyRoom::SteadyRoom(QLabel* label, QWidget* parent) : QWidget(parent), m_label(label) {
  label->setParent(this);
  label->show();
  auto policy = label->sizePolicy();
  policy.setHeightForWidth(label->wordWrap());
  setSizePolicy(policy);
}

QSize SteadyRoom::sizeHint() const {
  return m_label->sizeHint();
}

QSize SteadyRoom::minimumSizeHint() const {
  return m_label->minimumSizeHint();
}

bool SteadyRoom::hasHeightForWidth() const {
  return m_label->wordWrap();
}

int SteadyRoom::heightForWidth(int width) const {
  return m_label->wordWrap() ? m_label->heightForWidth(width) : -1;
}

/// A child without a layout around it tells its parent with this event that it wants another size.
bool SteadyRoom::event(QEvent* event) {
  if (event->type() != QEvent::LayoutRequest) return QWidget::event(event);
  askForRoom();
  return true;
}

/// Words that changed behind another page told nobody.
void SteadyRoom::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  askForRoom();
}

void SteadyRoom::askForRoom() {
  const bool wraps = m_label->wordWrap();
  const int high = wraps ? m_label->heightForWidth(width()) : m_label->sizeHint().height();
  const bool fits = wraps ? high == height() : high <= height() && m_label->sizeHint().width() <= width();
  if (!fits) updateGeometry();
}

void SteadyRoom::resizeEvent(QResizeEvent*) {
  m_label->setGeometry(rect());
}

} // namespace butte::app
