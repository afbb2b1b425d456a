#pragma once
#include <QFontMetrics>
#include <QString>

namespace butte::app {

/// As much of a text as there is room for: whole parts between " · ", the last ones left out first, so that
/// no figure is cut in two; of a first part that is too long itself, its beginning. What paints it has the
/// whole text in its tip.
inline QString fittedText(const QFontMetrics& metrics, const QString& text, int width) {
  auto shown = text;
  while (metrics.horizontalAdvance(shown) > width) {
    const auto part = shown.lastIndexOf(" · ");
    if (part < 0) return metrics.elidedText(shown, Qt::ElideRight, width);
    shown.truncate(part);
  }
  return shown;
}

} // namespace butte::app
