#pragma once
#include "product/catalogue.h"

#include <QString>

namespace butte::app {

class UnitsShown;

/// What is known of a shipped product: contents, cautions, how it dissolves, and where that was found.
QString productFacts(const core::CatalogueProduct& entry, const UnitsShown& units);

} // namespace butte::app
