#include "solve/audit.h"

#include "base/decimal.h"
#include "solve/linear_model.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>

namespace butte::core {
namespace {

using Eigen::Index;
using Eigen::VectorXd;

constexpr double explains = 2.0 / 3; ///< share of the misfit that one line must mend to be suspected

bool near(double ratio, double factor, double by) {
  return ratio > factor * (1 - by) && ratio < factor * (1 + by);
}

/// What stands with two neighbouring digits swapped, where that gives what fits, to 2 %.
std::optional<double> withDigitsSwapped(double stands, double fits) {
  auto text = decimalText(std::round(stands * 1000) / 1000);
  for (std::size_t i = 0; i + 1 < text.size(); ++i) {
    if (text[i] == '.' || text[i + 1] == '.' || text[i] == text[i + 1]) continue;
    std::swap(text[i], text[i + 1]);
    const auto value = parseDecimal(text);
    std::swap(text[i], text[i + 1]);
    if (value && near(*value, fits, 0.02)) return value;
  }
  return std::nullopt;
}

/// How a line went wrong, and what was meant by it.
struct Slip {
  SheetSlip kind;
  double meant;
};

/// `fits` is what the rest of the sheet asks for; a slip that is known by its factor says it sharper.
Slip slipOf(double stands, double fits) {
  if (stands <= 0) return {SheetSlip::LeftOut, fits};
  if (fits <= 0) return {SheetSlip::Unknown, fits};
  constexpr double pound = 0.45359237, ounce = 28.349523125; // kg and g, by definition
  const struct {
    SheetSlip kind;
    double factor, within;
  } factors[] = {{SheetSlip::DecimalPoint, 10, 0.08},
                 {SheetSlip::DecimalPoint, 100, 0.08},
                 {SheetSlip::DecimalPoint, 1000, 0.08},
                 {SheetSlip::DecimalPoint, 0.1, 0.08},
                 {SheetSlip::DecimalPoint, 0.01, 0.08},
                 {SheetSlip::DecimalPoint, 0.001, 0.08},
                 {SheetSlip::PoundsForKilograms, pound, 0.03},
                 {SheetSlip::KilogramsForPounds, 1 / pound, 0.03},
                 {SheetSlip::OuncesForGrams, ounce, 0.05},
                 {SheetSlip::OuncesForGrams, 1 / ounce, 0.05},
                 {SheetSlip::Doubled, 2, 0.05},
                 {SheetSlip::Halved, 0.5, 0.05}};
  const auto swapped = withDigitsSwapped(stands, fits);
  for (const auto& [kind, factor, within] : factors) {
    if (kind != SheetSlip::DecimalPoint && swapped) return {SheetSlip::DigitsSwapped, *swapped};
    if (near(stands / fits, factor, within)) return {kind, stands / factor};
  }
  return {SheetSlip::Unknown, fits};
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
    const auto slip =
        slipOf(line.stands.grams(), (Concentration::fromGramsPerLitre(fits) * request.volume).grams());
    line.slip = slip.kind;
    line.fits = Mass::fromGrams(slip.meant);
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
