#pragma once
#include "document/shelf_story.h"

#include <QString>

namespace butte::app {

/// "Calibrate the pH pen, raft pond"; an own chore as it was typed.
QString choreText(const book::AgendaItem& item);
/// Why it is due: "every 2 weeks", "7 days after it was done", "by its date".
QString causeText(const book::AgendaItem& item);
/// A repeat in words, as far as it is one of the usual ones; else the rule as it stands.
QString repeatText(const std::string& rule);
QString dayWords(core::Day day);
/// "2 to do today · 1 late"; empty where there is nothing.
QString todayText(const ShelfStory& story);
/// What is late, or falls on a day, in a line each.
QStringList dueTexts(const ShelfStory& story, core::Day from, core::Day to);

} // namespace butte::app
