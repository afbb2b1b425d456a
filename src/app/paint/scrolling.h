#pragma once
#include <QFrame>
#include <QScrollArea>

namespace butte::app {

/// A page that scrolls once it has no room left.
inline QScrollArea* scrolling(QWidget* page) {
  auto* area = new QScrollArea;
  area->setWidget(page);
  area->setWidgetResizable(true);
  area->setFrameShape(QFrame::NoFrame);
  area->setFocusPolicy(Qt::NoFocus);
  return area;
}

} // namespace butte::app
