#pragma once
#include <QColor>
#include <QFont>
#include <QPalette>
#include <QString>

/// The look: mineral tones on paper white or deep slate; amber and red only for trouble.
namespace butte::app {

struct Theme {
  QColor page, card, ink, inkSoft, line, accent, accentInk, band, targetMark, amber, amberInk, amberFill, red,
      redFill, water;
};

/// The theme in force.
const Theme& theme();
bool isDark();
/// Switches the theme and the application's palette.
void applyTheme(bool dark);

/// Once, at the start: the program's own style, and its own face from its resources (figures of one width by
/// default).
void dressApplication();
QFont faceOf(int pixels, bool bold = false);
/// Letters of one width, for other people's texts that are laid out in columns.
QFont typewriterFaceOf(int pixels);

} // namespace butte::app
