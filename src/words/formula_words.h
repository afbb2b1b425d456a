#pragma once
#include "formula/uncertainty.h"
#include "product/product_doubts.h"
#include "solve/audit.h"
#include "solve/mends.h"
#include "words.h"

#include <functional>

/// What the formula's tools say, in a grower's words.
namespace butte::words {

/// "put potassium sulfate on the shelf", "let the band of sulfate be ±18 %".
std::string mendText(const core::Mend& mend, const ProductNamer& name = nameAsIs,
                     const std::vector<core::WaterOption>& waters = {});
/// "brings 3 of 4 back into their bands".
std::string mendEffect(const core::Mend& mend);
std::string_view code(core::MendKind kind);

/// "potassium nitrate: 50 stands, 505 fits; a decimal point? It throws off nitrogen and potassium."
/// Weights as `mass` writes them, in grams without it.
std::string suspectText(const core::SuspectLine& line, const ProductNamer& name = nameAsIs,
                        const std::function<std::string(core::Mass)>& mass = {});
std::string_view code(core::SheetSlip slip);

/// "content of potassium nitrate", "marks of the tank", "the water report".
std::string errorPartText(const core::ErrorPart& part, const std::vector<core::ShelfProduct>& shelf);
std::string_view code(core::ErrorSource source);
/// What would halve it: "weigh potassium nitrate on a finer scale".
std::string halvingText(const core::ErrorPart& part, const std::vector<core::ShelfProduct>& shelf);

/// What looks wrong about a product, with what would be right.
std::string productDoubtText(const core::ProductDoubtFound& found);

} // namespace butte::words
