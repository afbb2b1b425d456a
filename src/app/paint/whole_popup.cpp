#include "paint/whole_popup.h"

#include <QAbstractItemView>
#include <QChildEvent>
#include <QComboBox>
#include <QScreen>
#include <QScrollBar>
#include <algorithm>

namespace butte::app {

WholePopup::WholePopup(QComboBox* box) : QObject(box), m_box(box) {
  box->installEventFilter(this);
  for (auto* child : box->children())
    if (child->isWidgetType()) child->installEventFilter(this); // its list, where that was asked for before
}

/// The list is made when it is first asked for: as a child of the box that is a window.
bool WholePopup::eventFilter(QObject* watched, QEvent* event) {
  if (watched == m_box && event->type() == QEvent::ChildAdded) {
    auto* child = static_cast<QChildEvent*>(event)->child();
    if (child->isWidgetType()) child->installEventFilter(this);
  }
  const auto* widget = qobject_cast<QWidget*>(watched);
  if (watched != m_box && event->type() == QEvent::Show && widget && widget->isWindow()) {
    auto* list = m_box->view();
    const int wanted =
        list->sizeHintForColumn(0) + list->verticalScrollBar()->sizeHint().width() + 2 * list->frameWidth();
    list->setMinimumWidth(std::min(wanted, widget->screen()->availableGeometry().width()));
  }
  return QObject::eventFilter(watched, event);
}

} // namespace butte::app
