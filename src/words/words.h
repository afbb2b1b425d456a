#pragma once
#include "base/problem.h"
#include "chem/nutrient.h"
#include "solution/equilibrium_data.h"
#include "solve/solve.h"
#include "stock/stock.h"
#include "target/safe_ceilings.h"
#include "water/water.h"

#include <functional>
#include <string>
#include <string_view>

/// English for the core's codes: one place, shared by the window, the sheet and butte-cli.
namespace butte::words {

/// "potassium", "nitrate nitrogen".
std::string nutrientName(core::Nutrient nutrient);

/// "Ca", "NO3-N", "NH4-N": the short form for lanes and tables.
std::string nutrientSymbol(core::Nutrient nutrient);

/// What is wrong and what would be right, without the place.
std::string problemText(const core::Problem& problem);
/// The same with the place in front: "products[2].formula: ...".
std::string problemLine(const core::Problem& problem);

/// How a product id is called in a sentence.
using ProductNamer = std::function<std::string(const std::string& id)>;
std::string nameAsIs(const std::string& id);

std::string reasonText(const core::Reason& reason, const ProductNamer& name = nameAsIs);
std::string waterRemarkText(core::WaterRemark remark);
std::string solveWarningText(core::SolveWarning warning, const std::string& product);
std::string stockNoticeText(const core::StockNotice& notice, const ProductNamer& name = nameAsIs);
std::string labelRemarkText(core::LabelRemark remark, const std::string& product);

/// "boron 110 mg/L: above 2 it harms plants"; with the crop where the limit is its own.
std::string harmfulText(const core::HarmfulLevel& level);

/// "gypsum (calcium sulfate)": a solid of the chemistry, or a salt's own name.
std::string solidName(const std::string& solid);
/// How soon it shows, by common experience: "within minutes", "over hours" ... A solution that is only just
/// over-saturated (index below 0.5) takes its time even with the quick ones.
std::string kineticsText(core::FormsWithin kinetics, double saturationIndex);

/// Machine-readable codes of the same, for butte-cli.
std::string_view code(core::WaterRemark remark);
std::string_view code(core::SolveWarning warning);
std::string_view code(core::StockWarning warning);
std::string_view code(core::LabelRemark remark);

/// Figures for sentences: as many digits as mean something ("0.52", "12.4", "147").
std::string figure(double value);
/// The same digits with a decimal point, for a field or a file.
std::string digits(double value);

} // namespace butte::words
