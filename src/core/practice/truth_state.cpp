#include "practice/truth_state.h"

#include "formula/mix.h"

#include <algorithm>

namespace butte::core {

namespace {

/// Takes what happens, one after the other.
class Follower {
public:
  explicit Follower(const RunPlan& plan) {
    m_state.cup.resize(plan.shelf.size());
    m_state.vessels.resize(plan.vessels.size());
    for (std::size_t v = 0; v < plan.vessels.size(); ++v) {
      auto& vessel = m_state.vessels[v];
      vessel.in.resize(plan.shelf.size());
      vessel.undissolved.resize(plan.shelf.size());
      vessel.water = plan.vessels[v].had.volume;
      for (std::size_t p = 0; p < vessel.in.size(); ++p)
        vessel.in[p] = plan.vessels[v].had.of(p);
    }
  }
  void take(const TrueEvent& event) {
    std::visit([this](const auto& deed) { on(deed); }, event.deed);
  }
  TrueState done() { return std::move(m_state); }

private:
  bool isVessel(std::size_t v) const { return v < m_state.vessels.size(); }
  bool isProduct(std::size_t p) const { return p < m_state.cup.size(); }

  void on(const truly::Wore& deed) { m_state.wears[static_cast<std::size_t>(deed.piece)] = true; }
  void on(const truly::Poured& deed) {
    if (!isVessel(deed.vessel)) return;
    auto& water = m_state.vessels[deed.vessel].water;
    water = water + deed.volume;
  }
  void on(const truly::Filled& deed) {
    if (!isProduct(deed.product)) return;
    auto& there = m_state.cup[deed.product];
    there = std::max(Mass{}, there + deed.mass);
  }
  void on(const truly::TookOtherCup& deed) {
    if (!isProduct(deed.product)) return;
    std::fill(m_state.cup.begin(), m_state.cup.end(), Mass{});
    m_state.cup[deed.product] = deed.mass;
  }
  void on(const truly::Tipped& deed) {
    if (!isVessel(deed.vessel)) return;
    auto& vessel = m_state.vessels[deed.vessel];
    for (std::size_t p = 0; p < m_state.cup.size(); ++p) {
      vessel.in[p] = vessel.in[p] + m_state.cup[p];
      vessel.undissolved[p] = vessel.undissolved[p] + m_state.cup[p];
      m_state.cup[p] = Mass{};
    }
  }
  void on(const truly::Stirred& deed) {
    if (!isVessel(deed.vessel)) return;
    auto& vessel = m_state.vessels[deed.vessel];
    if (vessel.water <= Volume{}) return;
    for (std::size_t p = 0; p < vessel.undissolved.size(); ++p)
      vessel.undissolved[p] =
          vessel.undissolved[p] * (isStubborn(deed.vessel, p) ? stubbornStirLeaves : stirLeaves);
  }
  void on(const truly::Happened& deed) { m_state.happened.push_back(deed.what); }
  void on(const truly::Mended& deed) { m_state.mended.push_back(deed.mishap); }

  bool isStubborn(std::size_t vessel, std::size_t product) const {
    return std::any_of(m_state.happened.begin(), m_state.happened.end(), [&](const PlannedMishap& one) {
      return one.mishap == Mishap::WontDissolve && one.vessel == vessel && one.product == product;
    });
  }

  TrueState m_state;
};

std::vector<Mass> dissolvedIn(const TrueVessel& vessel) {
  std::vector<Mass> out(vessel.in.size());
  for (std::size_t p = 0; p < out.size(); ++p)
    out[p] = vessel.in[p] - vessel.undissolved[p];
  return out;
}

} // namespace

bool TrueVessel::looksClear() const {
  for (std::size_t p = 0; p < in.size(); ++p)
    if (undissolved[p] > in[p] * unseenShare) return false;
  return true;
}

Mass TrueState::inCup() const {
  Mass out;
  for (const auto mass : cup)
    out = out + mass;
  return out;
}

bool TrueState::isMended(Mishap mishap) const {
  return std::find(mended.begin(), mended.end(), mishap) != mended.end();
}

bool TrueState::isOn(Mishap mishap) const {
  return !isMended(mishap) && std::any_of(happened.begin(), happened.end(),
                                          [&](const PlannedMishap& one) { return one.mishap == mishap; });
}

TrueState trueState(const RunPlan& plan, const std::vector<TrueEvent>& events, std::size_t count) {
  Follower follower(plan);
  for (std::size_t i = 0; i < std::min(count, events.size()); ++i)
    follower.take(events[i]);
  return follower.done();
}

TrueReading trueReading(const RunPlan& plan, const TrueVessel& vessel, Volume full) {
  const auto made = mix(plan.water, plan.shelf, dissolvedIn(vessel), full);
  return {made.conductivity, made.ph};
}

NutrientAmounts trueFeed(const RunPlan& plan, const TrueState& truth, const RunState& told) {
  std::vector<Mass> perLitre(plan.shelf.size());
  for (std::size_t v = 0; v < plan.vessels.size(); ++v) {
    const double litres = madeUpTo(plan, told, v).litres() * plan.vessels[v].factor;
    const auto dissolved = dissolvedIn(truth.vessels[v]);
    for (std::size_t p = 0; p < perLitre.size(); ++p)
      perLitre[p] = perLitre[p] + dissolved[p] * (1 / litres);
  }
  return mix(plan.water, plan.shelf, perLitre, Volume::fromLitres(1)).milligramsPerLitre;
}

} // namespace butte::core
