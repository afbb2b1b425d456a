#include "shelf/element_prices.h"

#include "solve/linear_program.h"

#include <algorithm>
#include <limits>

namespace butte::core {

namespace {

struct Table {
  std::vector<std::size_t> products;
  Eigen::MatrixXd share; ///< product x element, g per g
  Eigen::VectorXd price, amount;
};

bool isSource(const ShelfProduct& product) {
  return product.pricePerKg && *product.pricePerKg > 0 && !isAcidOrBase(product);
}

bool hasSource(const std::vector<ShelfProduct>& shelf, const WantedElement& wanted) {
  return wanted.amount > 0 && std::any_of(shelf.begin(), shelf.end(), [&](const ShelfProduct& product) {
           return isSource(product) && product.composition.massFraction.of(wanted.nutrient) > 0;
         });
}

/// `wanted` have a source each.
Table tableOf(const std::vector<ShelfProduct>& shelf, const std::vector<WantedElement>& wanted) {
  Table out;
  for (std::size_t p = 0; p < shelf.size(); ++p)
    if (isSource(shelf[p]) && std::any_of(wanted.begin(), wanted.end(), [&](const auto& one) {
          return shelf[p].composition.massFraction.of(one.nutrient) > 0;
        }))
      out.products.push_back(p);
  const auto rows = static_cast<Eigen::Index>(out.products.size()),
             columns = static_cast<Eigen::Index>(wanted.size());
  out.share.resize(rows, columns);
  out.price.resize(rows);
  out.amount.resize(columns);
  for (Eigen::Index e = 0; e < columns; ++e) {
    const auto& one = wanted[static_cast<std::size_t>(e)];
    out.amount[e] = one.amount;
    for (Eigen::Index p = 0; p < rows; ++p)
      out.share(p, e) =
          shelf[out.products[static_cast<std::size_t>(p)]].composition.massFraction.of(one.nutrient);
  }
  for (Eigen::Index p = 0; p < rows; ++p)
    out.price[p] = *shelf[out.products[static_cast<std::size_t>(p)]].pricePerKg;
  return out;
}

/// Prices of the elements at which no product is worth more than it costs, and the whole is worth most.
std::optional<Eigen::VectorXd> dualValues(const Table& table) {
  const auto count = table.amount.size();
  auto limits =
      LinearLimits::boundsOnly(Eigen::VectorXd::Zero(count),
                               Eigen::VectorXd::Constant(count, std::numeric_limits<double>::infinity()));
  for (Eigen::Index p = 0; p < table.price.size(); ++p)
    limits.addInequality(table.share.row(p), table.price[p]);
  return linearProgram(-table.amount / table.amount.maxCoeff(), limits);
}

/// Each product that brings the element of this column, the cheapest first.
void addSources(ElementPrices& out, const Table& table, Nutrient nutrient, Eigen::Index e,
                const Eigen::VectorXd& worth) {
  const auto from = static_cast<std::ptrdiff_t>(out.sources.size());
  for (Eigen::Index p = 0; p < table.price.size(); ++p) {
    const auto row = table.share.row(p);
    if (!(row[e] > 0)) continue;
    const double worthOfAll = row.dot(worth);
    const double part = worthOfAll > 0 ? row[e] * worth[e] / worthOfAll : row[e] / row.sum();
    out.sources.push_back({nutrient, table.products[static_cast<std::size_t>(p)],
                           table.price[p] * part / row[e], (row.array() > 0).count() > 1});
  }
  std::stable_sort(out.sources.begin() + from, out.sources.end(),
                   [](const auto& a, const auto& b) { return a.pricePerKg < b.pricePerKg; });
}

} // namespace

std::optional<ElementPrices> elementPrices(const std::vector<ShelfProduct>& shelf,
                                           const std::vector<WantedElement>& wanted) {
  std::vector<WantedElement> had;
  for (const auto& one : wanted)
    if (hasSource(shelf, one)) had.push_back(one);
  if (had.empty()) return std::nullopt;
  const auto table = tableOf(shelf, had);
  const auto dual = dualValues(table);
  if (!dual) return std::nullopt;
  constexpr double gramsPerKg = 1000;
  const Eigen::VectorXd worth = dual->cwiseMax(0);
  ElementPrices out;
  out.cheapest = worth.dot(table.amount) / gramsPerKg;
  Eigen::Index e = 0;
  for (const auto& one : wanted) {
    if (!hasSource(shelf, one)) {
      out.marginalPerKg.emplace_back();
      continue;
    }
    out.marginalPerKg.emplace_back(worth[e]);
    addSources(out, table, one.nutrient, e++, worth);
  }
  return out;
}

} // namespace butte::core
