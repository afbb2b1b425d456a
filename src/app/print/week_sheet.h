#pragma once
#include "document/shelf_story.h"

#include <QString>

namespace butte::app {

/// What hands have to do this week and the next, with a box before each: for the wall.
QString weekSheet(const ShelfStory& story, const QString& farm);

} // namespace butte::app
