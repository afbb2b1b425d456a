#pragma once
#include <QBrush>
#include <QColor>
#include <QPainter>
#include <QRectF>
#include <string>

namespace butte::app {

/// The colour and hatch that a product owns, everywhere: told apart without colour, too.
struct ProductLook {
  QColor fill;
  int hatch = 0; ///< 0 plain, then lines, counter-lines, upright, level, cross, dots
  bool operator==(const ProductLook&) const = default;
};

/// The program's choice for a product.
ProductLook usualLook(const std::string& productId);

/// Fills `area` in the product's colour and hatch.
void fillAs(QPainter& painter, const QRectF& area, const ProductLook& look);
/// The source water: always the same waves.
void fillAsWater(QPainter& painter, const QRectF& area);

} // namespace butte::app
