#include "shelf/element_prices.h"

#include "solve/linear_program.h"

#include <algorithm>
#include <limits>

namespace butte::core {

namespace {

struct Table {
  std::vector<WantedElement> wanted; ///< some of it
  std::vector<std::size_t> products;
  Eigen::MatrixXd share; ///< product x element, g per g
  Eigen::VectorXd price, amount;
};

std::optional<Table> tableOf(const std::vector<ShelfProduct>& shelf,
                             const std::vector<WantedElement>& wanted) {
  Table out;
  for (const auto& one : wanted)
    if (one.amount > 0) out.wanted.push_back(one);
  const auto brings = [&](const ShelfProduct& product) {
    return std::any_of(out.wanted.begin(), out.wanted.end(), [&](const auto& one) {
      return product.composition.massFraction.of(one.nutrient) > 0;
    });
  };
  for (std::size_t p = 0; p < shelf.size(); ++p)
    if (shelf[p].pricePerKg && *shelf[p].pricePerKg > 0 && !isAcidOrBase(shelf[p]) && brings(shelf[p]))
      out.products.push_back(p);
  const auto rows = static_cast<Eigen::Index>(out.products.size()),
             columns = static_cast<Eigen::Index>(out.wanted.size());
  out.share.resize(rows, columns);
  out.price.resize(rows);
  out.amount.resize(columns);
  for (Eigen::Index p = 0; p < rows; ++p) {
    const auto& product = shelf[out.products[static_cast<std::size_t>(p)]];
    out.price[p] = *product.pricePerKg;
    for (Eigen::Index e = 0; e < columns; ++e)
      out.share(p, e) = product.composition.massFraction.of(out.wanted[static_cast<std::size_t>(e)].nutrient);
  }
  for (Eigen::Index e = 0; e < columns; ++e) {
    out.amount[e] = out.wanted[static_cast<std::size_t>(e)].amount;
    if (rows == 0 || !(out.share.col(e).maxCoeff() > 0)) return std::nullopt;
  }
  return columns > 0 ? std::optional(std::move(out)) : std::nullopt;
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

} // namespace

std::optional<ElementPrices> elementPrices(const std::vector<ShelfProduct>& shelf,
                                           const std::vector<WantedElement>& wanted) {
  const auto table = tableOf(shelf, wanted);
  if (!table) return std::nullopt;
  const auto dual = dualValues(*table);
  if (!dual) return std::nullopt;
  ElementPrices out;
  out.cheapest = dual->dot(table->amount) / 1000; // grams wanted, prices by the kilogram
  out.marginalPerKg.assign(wanted.size(), 0);
  const Eigen::VectorXd worth = dual->cwiseMax(0);
  Eigen::Index e = 0;
  for (std::size_t w = 0; w < wanted.size(); ++w) {
    if (!(wanted[w].amount > 0)) continue;
    out.marginalPerKg[w] = worth[e];
    const auto from = out.sources.size();
    for (Eigen::Index p = 0; p < table->price.size(); ++p) {
      const auto row = table->share.row(p);
      if (!(row[e] > 0)) continue;
      const double worthOfAll = row.dot(worth);
      const double part = worthOfAll > 0 ? row[e] * worth[e] / worthOfAll : row[e] / row.sum();
      out.sources.push_back({wanted[w].nutrient, table->products[static_cast<std::size_t>(p)],
                             table->price[p] * part / row[e], (row.array() > 0).count() > 1});
    }
    std::stable_sort(out.sources.begin() + static_cast<std::ptrdiff_t>(from), out.sources.end(),
                     [](const auto& a, const auto& b) { return a.pricePerKg < b.pricePerKg; });
    ++e;
  }
  return out;
}

} // namespace butte::core
