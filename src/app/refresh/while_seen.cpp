#include "refresh/while_seen.h"

#include <QEvent>

namespace butte::app {

WhileSeen::WhileSeen(QWidget* panel, std::function<void()> refresh)
    : QObject(panel), m_panel(panel), m_refresh(std::move(refresh)) {
  panel->installEventFilter(this);
}

void WhileSeen::outdate() {
  if (m_panel->isVisible())
    m_refresh();
  else
    m_outdated = true;
}

bool WhileSeen::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::Show && m_outdated) {
    m_outdated = false;
    m_refresh();
  }
  return QObject::eventFilter(watched, event);
}

void restyle(QWidget& widget, const QString& sheet) {
  if (widget.styleSheet() != sheet) widget.setStyleSheet(sheet);
}

} // namespace butte::app
