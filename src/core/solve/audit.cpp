#include "solve/audit.h"

#include "base/decimal.h"
#include "solve/linear_model.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace butte::core {
namespace {

using Eigen::Index;
using Eigen::VectorXd;

constexpr double explains = 2.0 / 3; ///< share of the misfit that one line must mend to be suspected

bool near(double ratio, double factor, double by) {
  return ratio > factor * (1 - by) && ratio < factor * (1 + by);
}

/// Whether swapping two neighbouring digits of what stands gives what fits, to 2 %.
bool digitsSwapped(double stands, double fits) {
  auto text = decimalText(std::round(stands * 1000) / 1000);
  for (std::size_t i = 0; i + 1 < text.size(); ++i) {
    if (text[i] == '.' || text[i + 1] == '.' || text[i] == text[i + 1]) continue;
    std::swap(text[i], text[i + 1]);
    const auto value = parseDecimal(text);
    std::swap(text[i], text[i + 1]);
    if (value && near(*value, fits, 0.02)) return true;
  }
  return false;
}

SheetSlip slipOf(double stands, double fits) {
  if (stands <= 0) return SheetSlip::LeftOut;
  if (fits <= 0) return SheetSlip::Unknown;
  const double ratio = stands / fits;
  for (const double factor : {10.0, 100.0, 1000.0, 0.1, 0.01, 0.001}) {
    if (near(ratio, factor, 0.08)) return SheetSlip::DecimalPoint;
  }
  if (digitsSwapped(stands, fits)) return SheetSlip::DigitsSwapped;
  constexpr double pound = 0.45359237, ounce = 28.349523125; // kg and g, by definition
  if (near(ratio, pound, 0.03)) return SheetSlip::PoundsForKilograms;
  if (near(ratio, 1 / pound, 0.03)) return SheetSlip::KilogramsForPounds;
  if (near(ratio, ounce, 0.05) || near(ratio, 1 / ounce, 0.05)) return SheetSlip::OuncesForGrams;
  if (near(ratio, 2, 0.05)) return SheetSlip::Doubled;
  if (near(ratio, 0.5, 0.05)) return SheetSlip::Halved;
  return SheetSlip::Unknown;
}

} // namespace

std::vector<SuspectLine> suspectLines(const SolveRequest& request, const std::vector<Mass>& grams) {
  SolveRequest plain = request;
  for (auto& p : plain.shelf) { // a sheet says what it says: acids too
    p.locked.reset();
    p.composition.role = ProductRole::Salt;
  }
  plain.alkalinityLeftMeqPerL.reset();
  const LinearModel model = buildModel(plain);
  VectorXd x(static_cast<Index>(grams.size()));
  for (Index j = 0; j < x.size(); ++j)
    x[j] = (grams[static_cast<std::size_t>(j)] / request.volume).gramsPerLitre();
  const Eigen::MatrixXd a = model.scaledMatrix();
  const VectorXd miss = a * x - model.scaledRhs();
  const auto inBand = [&](std::size_t i, const VectorXd& at) {
    return request.rows[i].contains(resultAt(model, static_cast<Index>(i), at));
  };
  bool allIn = true;
  for (std::size_t i = 0; i < request.rows.size(); ++i)
    allIn = allIn && inBand(i, x);
  std::vector<SuspectLine> found;
  if (allIn) return found;
  for (Index j = 0; j < x.size(); ++j) {
    const VectorXd column = a.col(j);
    if (column.squaredNorm() <= 0) continue;
    const double fits = std::max(0.0, x[j] - column.dot(miss) / column.squaredNorm());
    const VectorXd after = miss + column * (fits - x[j]);
    SuspectLine line;
    line.mendedShare = 1 - after.squaredNorm() / miss.squaredNorm();
    if (line.mendedShare < explains) continue;
    const auto index = static_cast<std::size_t>(j);
    line.product = request.shelf[index].id;
    line.stands = grams[index];
    line.fits = Concentration::fromGramsPerLitre(fits) * request.volume;
    line.slip = slipOf(line.stands.grams(), line.fits.grams());
    VectorXd mended = x;
    mended[j] = fits;
    for (std::size_t i = 0; i < request.rows.size(); ++i) {
      if (!inBand(i, x) && inBand(i, mended)) line.thrownOff.push_back(request.rows[i].nutrient);
    }
    found.push_back(std::move(line));
  }
  std::stable_sort(found.begin(), found.end(),
                   [](const SuspectLine& l, const SuspectLine& r) { return l.mendedShare > r.mendedShare; });
  return found;
}

} // namespace butte::core
