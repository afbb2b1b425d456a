#pragma once
#include "document/shelf_story.h"

#include <QString>

namespace butte::app {

class UnitsShown;

/// What to buy: each product that the shelf will lack, in whole bags at least cost, by when to order; sums by
/// supplier. Marked text for screen, printer and PDF.
QString orderPaper(const ShelfStory& story, int weeks, const UnitsShown& units);
} // namespace butte::app
