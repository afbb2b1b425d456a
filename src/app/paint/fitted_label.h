#pragma once
#include "paint/fitted_text.h"
#include "paint/plain_label.h"
#include "paint/theme.h"

#include <QPainter>

namespace butte::app {

/// A label of one line that gives way: in smaller letters before it is shortened (fittedText()). Its text()
/// stays whole, and so must the tip of what it stands in.
class FittedLabel : public PlainLabel {
public:
  explicit FittedLabel(const QString& text = {}, QWidget* parent = nullptr) : PlainLabel(text, parent) {
    setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  }

protected:
  void paintEvent(QPaintEvent*) override {
    constexpr int mostSmaller = 2;
    QPainter painter(this);
    auto face = font();
    for (int smaller = 0; smaller <= mostSmaller; ++smaller) {
      face = faceOf(font().pixelSize() - smaller, font().bold());
      if (QFontMetrics(face).horizontalAdvance(text()) <= width()) break;
    }
    painter.setFont(face);
    painter.setPen(palette().color(isEnabled() ? QPalette::Normal : QPalette::Disabled, foregroundRole()));
    painter.drawText(rect(), alignment(), fittedText(QFontMetrics(face), text(), width()));
  }
};

} // namespace butte::app
