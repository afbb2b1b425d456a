#include "run/substitute.h"

#include "formula/mix.h"
#include "run/settled_vessel.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace butte::core {

namespace {

using Shifts = std::array<double, nutrientCount>; ///< of the feed, each over its planned figure

constexpr double byTheWay = 0.1, leastPlannedMgPerLitre = 0.01, worthTelling = 0.01;
constexpr std::size_t mostOffers = 3;

double lengthOf(const Shifts& shifts) {
  double out = 0;
  for (const double s : shifts)
    out += s * s;
  return std::sqrt(out);
}

double dot(const Shifts& a, const Shifts& b) {
  double out = 0;
  for (std::size_t i = 0; i < a.size(); ++i)
    out += a[i] * b[i];
  return out;
}

/// Searches one vessel's step.
class Search {
public:
  Search(const RunPlan& plan, const RunState& state, std::size_t vessel, std::size_t step)
      : m_plan(plan), m_state(state), m_vessel(vessel) {
    const auto& planned = plan.vessels[vessel].steps[step];
    m_product = planned.product;
    m_litresOfFeed = madeUpTo(plan, state, vessel).litres() * plan.vessels[vessel].factor;
    m_feed = mix(plan.water, plan.shelf, gramsPerLitreOfFeed(plan), Volume::fromLitres(1)).milligramsPerLitre;
    m_missing = std::max(Mass{}, stillToWeigh(state, plan, vessel, step));
    m_lack = shiftsOf(m_product, m_missing.grams());
  }

  std::vector<SubstituteOffer> offers() const {
    if (m_missing <= Mass{}) return {};
    std::vector<Found> found;
    for (std::size_t p = 0; p < m_plan.shelf.size(); ++p) {
      if (!mayStandIn(p)) continue;
      addOne(p, found);
      for (auto q = p + 1; q < m_plan.shelf.size(); ++q)
        if (mayStandIn(q)) addTwo(p, q, found);
    }
    std::stable_sort(found.begin(), found.end(),
                     [](const Found& a, const Found& b) { return a.left < b.left; });
    std::vector<SubstituteOffer> out;
    for (const auto& one : found) {
      if (out.size() == mostOffers) break;
      if (isNear(one, out) || falls(one.parts)) continue;
      out.push_back({one.parts, told(one)});
    }
    return out;
  }

private:
  struct Found {
    std::vector<SubstituteOffer::Part> parts;
    double left = 0; ///< distance that stays
  };

  bool mayStandIn(std::size_t p) const {
    return p != m_product && isAcidOrBase(m_plan.shelf[p]) == isAcidOrBase(m_plan.shelf[m_product]);
  }

  Shifts shiftsOf(std::size_t product, double grams) const {
    Shifts out{};
    const auto& fractions = m_plan.shelf[product].composition.massFraction;
    for (const auto n : allNutrients) {
      if (n == Nutrient::N) continue; // its forms are counted
      const double mgPerLitre = 1000 * grams * fractions.of(n) / m_litresOfFeed;
      // Nitrogen is nitrogen: a form that is hardly there is held against the sum.
      const bool nitrogen = n == Nutrient::NNitrate || n == Nutrient::NAmmonium || n == Nutrient::NUrea;
      const double planned = nitrogen ? m_feed.of(Nutrient::N) : m_feed.of(n);
      const double weight = n == Nutrient::Na || n == Nutrient::Cl ? byTheWay : 1;
      // What was not in the plan at all counts as if a few mg/L of it were.
      constexpr double unplannedMgPerLitre = 5;
      out[static_cast<std::size_t>(n)] =
          weight * mgPerLitre / (planned > leastPlannedMgPerLitre ? planned : unplannedMgPerLitre);
    }
    return out;
  }

  double leftOf(const std::vector<SubstituteOffer::Part>& parts) const { return lengthOf(remaining(parts)); }
  Shifts remaining(const std::vector<SubstituteOffer::Part>& parts) const {
    auto out = m_lack;
    for (const auto& part : parts) {
      const auto brought = shiftsOf(part.product, part.mass.grams());
      for (std::size_t i = 0; i < out.size(); ++i)
        out[i] -= brought[i];
    }
    return out;
  }
  void keep(std::vector<SubstituteOffer::Part> parts, std::vector<Found>& found) const {
    constexpr double worthIt = 0.8;
    const double left = leftOf(parts);
    if (left < worthIt * lengthOf(m_lack)) found.push_back({std::move(parts), left});
  }
  void addOne(std::size_t p, std::vector<Found>& found) const {
    const auto per = shiftsOf(p, 1);
    const double square = dot(per, per);
    const double grams = square > 0 ? dot(per, m_lack) / square : 0;
    if (grams > 0) keep({{p, Mass::fromGrams(grams)}}, found);
  }
  void addTwo(std::size_t p, std::size_t q, std::vector<Found>& found) const {
    const auto a = shiftsOf(p, 1), b = shiftsOf(q, 1);
    const double aa = dot(a, a), bb = dot(b, b), ab = dot(a, b), al = dot(a, m_lack), bl = dot(b, m_lack);
    const double determinant = aa * bb - ab * ab;
    constexpr double alike = 1e-9;
    if (!(determinant > alike * aa * bb)) return;
    const double x = (al * bb - bl * ab) / determinant, y = (bl * aa - al * ab) / determinant;
    constexpr double worthAWeight = 0.02;
    if (x > worthAWeight * m_missing.grams() && y > worthAWeight * m_missing.grams())
      keep({{p, Mass::fromGrams(x)}, {q, Mass::fromGrams(y)}}, found);
  }

  /// A second product that betters hardly anything is no offer of its own.
  bool isNear(const Found& one, const std::vector<SubstituteOffer>& out) const {
    constexpr double betterBy = 0.8;
    return std::any_of(out.begin(), out.end(), [&](const SubstituteOffer& other) {
      const bool shares = std::any_of(other.parts.begin(), other.parts.end(), [&](const auto& part) {
        return std::any_of(one.parts.begin(), one.parts.end(),
                           [&](const auto& mine) { return mine.product == part.product; });
      });
      return shares && leftOf(other.parts) > betterBy * one.left;
    });
  }

  /// The vessel with all that is planned for it, and these.
  bool falls(const std::vector<SubstituteOffer::Part>& parts) const {
    std::vector<Mass> content(m_plan.shelf.size());
    const auto& vessel = m_plan.vessels[m_vessel];
    for (const auto& step : vessel.steps)
      content[step.product] =
          std::max(m_state.vessels[m_vessel].of[step.product].in, wantedOf(m_state, step));
    content[m_product] = content[m_product] - m_missing;
    const auto volume = madeUpTo(m_plan, m_state, m_vessel);
    const auto fallen = [&] { return settledVessel(m_plan, m_vessel, content, volume).tanks.front().fallen; };
    const bool anyway = !fallen().empty();
    for (const auto& part : parts)
      content[part.product] = content[part.product] + part.mass;
    return !anyway && !fallen().empty();
  }

  std::vector<std::pair<Nutrient, double>> told(const Found& one) const {
    std::vector<std::pair<Nutrient, double>> out;
    NutrientAmounts shift;
    const auto add = [&](std::size_t product, double grams) {
      shift.addScaled(m_plan.shelf[product].composition.massFraction, 1000 * grams / m_litresOfFeed);
    };
    add(m_product, -m_missing.grams());
    for (const auto& part : one.parts)
      add(part.product, part.mass.grams());
    for (const auto n : allNutrients) {
      const double planned = m_feed.of(n);
      if (planned < leastPlannedMgPerLitre || std::abs(shift.of(n)) < worthTelling * planned) continue;
      out.emplace_back(n, 100 * shift.of(n) / planned);
    }
    std::stable_sort(out.begin(), out.end(),
                     [](const auto& a, const auto& b) { return std::abs(a.second) > std::abs(b.second); });
    return out;
  }

  const RunPlan& m_plan;
  const RunState& m_state;
  std::size_t m_vessel, m_product = 0;
  double m_litresOfFeed = 1;
  NutrientAmounts m_feed;
  Mass m_missing;
  Shifts m_lack{};
};

/// Toleranced as the step it stands in for, by its share of the weight.
void substitute(RunPlan& plan, const did::Substituted& deed, Mass in, double ratio) {
  auto& steps = plan.vessels[deed.vessel].steps;
  const auto at = std::find_if(steps.begin(), steps.end(),
                               [&](const RunStep& step) { return step.product == deed.product; });
  if (at == steps.end() || deed.by >= plan.shelf.size()) return;
  const auto mass = deed.mass * (1 / ratio);
  RunStep instead = *at;
  instead.product = deed.by;
  instead.planned = mass;
  constexpr double usualShare = 0.02;
  const double share = at->planned > Mass{} ? at->tolerance / at->planned : usualShare;
  instead.tolerance = mass * share;
  at->planned = std::max(Mass{}, in * (1 / ratio));
  const auto known =
      std::find_if(steps.begin(), steps.end(), [&](const RunStep& step) { return step.product == deed.by; });
  if (known != steps.end()) {
    known->planned = known->planned + mass;
    known->tolerance = known->tolerance + instead.tolerance;
  } else {
    steps.insert(at + 1, instead);
  }
}

} // namespace

RunPlan withSubstitutes(const RunPlan& plan, const std::vector<RunEvent>& events) {
  auto out = plan;
  std::vector<bool> struck(events.size(), false);
  for (const auto& event : events)
    if (const auto* strike = std::get_if<did::Struck>(&event.deed); strike && strike->event < struck.size())
      struck[strike->event] = true;
  double ratio = 1;
  std::vector<std::vector<Mass>> in(plan.vessels.size(), std::vector<Mass>(plan.shelf.size()));
  std::vector<Mass> cup(plan.shelf.size());
  for (std::size_t i = 0; i < events.size(); ++i) {
    if (struck[i]) continue;
    const auto& deed = events[i].deed;
    if (const auto* scaled = std::get_if<did::Rescaled>(&deed)) ratio = scaled->ratio;
    if (const auto* weighed = std::get_if<did::Weighed>(&deed); weighed && weighed->product < cup.size())
      cup[weighed->product] = cup[weighed->product] + weighed->mass;
    if (const auto* taken = std::get_if<did::TakenOut>(&deed); taken && taken->product < cup.size())
      cup[taken->product] = cup[taken->product] - taken->mass;
    if (const auto* tipped = std::get_if<did::Tipped>(&deed);
        tipped && tipped->product < cup.size() && tipped->vessel < in.size()) {
      auto& there = in[tipped->vessel][tipped->product];
      there = there + cup[tipped->product];
      cup[tipped->product] = Mass{};
    }
    const auto* instead = std::get_if<did::Substituted>(&deed);
    if (instead && instead->vessel < in.size() && instead->product < cup.size())
      substitute(out, *instead, in[instead->vessel][instead->product] + cup[instead->product], ratio);
  }
  return out;
}

std::vector<SubstituteOffer> substitutesFor(const RunPlan& plan, const RunState& state, std::size_t vessel,
                                            std::size_t step) {
  return Search(plan, state, vessel, step).offers();
}

} // namespace butte::core
