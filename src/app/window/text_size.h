#pragma once
#include <QSettings>
#include <QStringList>
#include <array>

namespace butte::app {

/// How large everything in the window is, in percent of the usual; the desktop's own scale comes on top.
inline constexpr std::array textPercents{100, 125, 150, 175, 200};

/// The one chosen; 100 where none or nonsense is kept.
int textPercent(const QSettings& settings);
void keepTextPercent(QSettings& settings, int percent);
/// The next larger (+1) or smaller (-1) one; the same at the ends.
int nextTextPercent(int percent, int step);

/// Before the application is made: Qt takes the scale only then. A scale given from outside stands.
void scaleText(int percent);

/// What the event loop ends with where the program is to open anew, and what opens it: the same program with
/// these arguments, in this process's place. Returns only where that fails.
inline constexpr int startAgainCode = 75;
void startAgain(const QStringList& arguments);

} // namespace butte::app
