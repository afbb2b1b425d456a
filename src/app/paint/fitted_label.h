#pragma once
#include "paint/fitted_text.h"
#include "paint/plain_label.h"
#include "paint/theme.h"

#include <QPainter>

namespace butte::app {

/// A label of one line that gives way: in smaller letters, then in two lines where it is high enough, before
/// it is shortened (fittedText()). Its text() stays whole, and so must the tip of what it stands in.
class FittedLabel : public PlainLabel {
public:
  explicit FittedLabel(const QString& text = {}, QWidget* parent = nullptr) : PlainLabel(text, parent) {
    setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  }

  /// Whether one line holds it, be it in smaller letters.
  bool fitsOneLine() const { return advance(smallest()) <= width(); }

protected:
  void paintEvent(QPaintEvent*) override {
    QPainter painter(this);
    painter.setPen(palette().color(isEnabled() ? QPalette::Normal : QPalette::Disabled, foregroundRole()));
    if (!fitsOneLine() && paintTwoLines(painter)) return;
    auto face = font();
    for (int size = font().pixelSize(); size >= smallest(); --size) {
      face = faceOf(size, font().bold());
      if (advance(size) <= width()) break;
    }
    painter.setFont(face);
    painter.drawText(rect(), alignment(), fittedText(QFontMetrics(face), text(), width()));
  }

private:
  int smallest() const {
    constexpr int mostSmaller = 2;
    return font().pixelSize() - mostSmaller;
  }
  int advance(int size) const { return QFontMetrics(faceOf(size, font().bold())).horizontalAdvance(text()); }
  bool paintTwoLines(QPainter& painter) const {
    const int how = alignment() | Qt::TextWordWrap;
    for (int size = font().pixelSize(); size >= smallest(); --size) {
      painter.setFont(faceOf(size, font().bold()));
      const auto needs = painter.fontMetrics().boundingRect(rect(), how, text());
      if (needs.height() > height() || needs.width() > width()) continue;
      painter.drawText(rect(), how, text());
      return true;
    }
    return false;
  }
};

} // namespace butte::app
