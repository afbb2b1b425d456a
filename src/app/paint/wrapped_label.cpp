#include "paint/wrapped_label.h"

#include <QEvent>
#include <algorithm>

namespace butte::app {

WrappedLabel::WrappedLabel(const QString& text, QWidget* parent) : PlainLabel(text, parent) {
  setWordWrap(true);
}

int WrappedLabel::heightForWidth(int width) const {
  constexpr std::size_t mostKnown = 8; // a layout asks for a few widths
  if (text() != m_known || m_heights.size() > mostKnown) {
    m_known = text();
    m_heights.clear();
  }
  const auto known =
      std::find_if(m_heights.begin(), m_heights.end(), [&](const auto& one) { return one.first == width; });
  if (known != m_heights.end()) return known->second;
  const int height = QLabel::heightForWidth(width);
  m_heights.emplace_back(width, height);
  return height;
}

void WrappedLabel::changeEvent(QEvent* event) {
  if (event->type() == QEvent::FontChange || event->type() == QEvent::StyleChange) m_heights.clear();
  QLabel::changeEvent(event);
}

} // namespace butte::app
