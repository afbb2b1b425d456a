#include "shelf/order_list.h"

#include "solve/integer_program.h"

#include <algorithm>
#include <cmath>

namespace butte::core {

namespace {

/// Whole bags that cover `needed` at the least price; with a ceiling the most mass at no more than that.
std::optional<std::vector<int>> wholeBags(Mass needed, const std::vector<BagOffer>& offers,
                                          std::optional<double> ceiling) {
  const auto count = static_cast<Eigen::Index>(offers.size());
  Eigen::VectorXd most(count), share(count), price(count);
  std::vector<Eigen::Index> all;
  for (Eigen::Index i = 0; i < count; ++i) {
    const auto& offer = offers[static_cast<std::size_t>(i)];
    share[i] = offer.bag / needed;
    price[i] = offer.price;
    most[i] = std::ceil(1 / share[i]);
    all.push_back(i);
  }
  constexpr double rounding = 1e-9;
  auto limits = LinearLimits::boundsOnly(Eigen::VectorXd::Zero(count), most);
  limits.addInequality(-share.transpose(), -(1 - rounding));
  if (ceiling) limits.addInequality(price.transpose(), *ceiling * (1 + rounding));
  const auto found = integerProgram(ceiling ? Eigen::VectorXd(-share) : price, limits, {}, all);
  if (!found || !found->proven) return std::nullopt;
  std::vector<int> out;
  for (const double bags : found->x)
    out.push_back(static_cast<int>(std::lround(bags)));
  return out;
}

BagOrder orderOf(std::vector<int> bags, const std::vector<BagOffer>& offers) {
  BagOrder out{std::move(bags), {}, 0};
  for (std::size_t i = 0; i < offers.size(); ++i) {
    out.mass = out.mass + offers[i].bag * out.bags[i];
    out.cost += offers[i].price * out.bags[i];
  }
  return out;
}

} // namespace

std::optional<BagOrder> cheapestBags(Mass needed, const std::vector<BagOffer>& offers) {
  if (offers.empty()) return std::nullopt;
  for (const auto& offer : offers) {
    const bool fits = offer.bag > Mass{} && needed / offer.bag <= mostBagsOrdered;
    if (!fits || !(offer.price > 0)) return std::nullopt;
  }
  if (!(needed > Mass{})) return orderOf(std::vector<int>(offers.size(), 0), offers);
  const auto cheapest = wholeBags(needed, offers, std::nullopt);
  if (!cheapest) return std::nullopt;
  const auto order = orderOf(*cheapest, offers);
  const auto most = wholeBags(needed, offers, order.cost);
  return most ? orderOf(*most, offers) : order;
}

} // namespace butte::core
