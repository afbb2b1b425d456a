#include "stock/tank_rounding.h"

#include "solve/joint_rounding.h"

namespace butte::core {
namespace {

constexpr double worthTelling = 0.001; // of a weight: finer than any purity is known

/// Every item of every tank as a product of its own, in grams for one and the same volume of feed.
class AllTanks {
public:
  AllTanks(const SolveRequest& request, const std::vector<Mass>& grams, const StockAnswer& stock,
           const std::vector<Scale>& scales)
      : m_stock(stock) {
    m_request = request;
    m_request.shelf.clear();
    m_request.alkalinityLeftMeqPerL.reset(); // the acid's dose is no longer asked for
    for (std::size_t t = 0; t < stock.tanks.size(); ++t) {
      std::vector<Mass> weights(request.shelf.size());
      for (const auto& item : stock.tanks[t].items)
        weights[item.product] = item.mass;
      for (const auto& step : weighPlan(request.shelf, weights, scales))
        add(request, t, step);
    }
    for (const auto j : stock.notPlaced) {
      m_request.shelf.push_back(request.shelf[j]);
      m_request.shelf.back().locked = grams[j];
      m_grams.push_back(grams[j]);
      m_steps.emplace_back();
    }
  }

  RoundedTanks rounded(std::size_t products) const {
    const auto found = roundTogether(m_request, m_grams, m_steps);
    RoundedTanks out{std::vector(m_stock.tanks.size(), std::vector<Mass>(products)), found.misfit,
                     found.oneByOne};
    for (std::size_t i = 0; i < m_places.size(); ++i) {
      const auto& place = m_places[i];
      auto& grams = out.grams[place.tank][place.product];
      grams = place.shown;
      // Back to the tank's own weight: a whole number of steps to the last digit.
      if (m_steps[i] > Mass{}) grams = roundedToStep(found.grams[i] * (1 / place.perTank), place.step);
    }
    return out;
  }

private:
  struct Place {
    std::size_t tank, product;
    double perTank; ///< grams for the request's volume of feed over grams in the tank
    Mass step, shown;
  };

  void add(const SolveRequest& request, std::size_t t, const WeighStep& step) {
    const auto& content = m_stock.tanks[t];
    const double perTank = request.volume / (content.tank.volume * content.factor);
    // What no scale can weigh goes in by a pre-stock, as computed.
    const bool bySpoon = step.teaspoons > 0; // all of it is coarse, and poured all the same
    const bool matters = !bySpoon && !step.tooFine && step.step * 0.5 > step.exact * worthTelling;
    m_places.push_back({t, step.product, perTank, step.step, step.shown});
    m_request.shelf.push_back(request.shelf[step.product]);
    m_request.shelf.back().locked.reset();
    m_grams.push_back((matters || (step.tooFine && !bySpoon) ? step.exact : step.shown) * perTank);
    m_steps.push_back(matters ? step.step * perTank : Mass{});
  }

  const StockAnswer& m_stock;
  SolveRequest m_request;
  std::vector<Mass> m_grams, m_steps;
  std::vector<Place> m_places;
};

} // namespace

RoundedTanks roundTanksTogether(const SolveRequest& request, const std::vector<Mass>& grams,
                                const StockAnswer& stock, const std::vector<Scale>& scales) {
  return AllTanks(request, grams, stock, scales).rounded(request.shelf.size());
}

} // namespace butte::core
