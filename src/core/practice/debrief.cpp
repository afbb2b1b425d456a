#include "practice/debrief.h"

#include "run/run_result.h"

#include <algorithm>
#include <cmath>

namespace butte::core {

namespace {

constexpr double allOfIt = 100; ///< of one element: a trace eighty times too high is no worse
constexpr double worthlessPercent = 20, penReads = 0.05;
constexpr double worthTellingPercent = 1, scoredFromMgPerLitre = 0.005;

bool counts(Nutrient n) {
  return n == Nutrient::N || n == Nutrient::P || n == Nutrient::K || n == Nutrient::Ca || n == Nutrient::Mg ||
         n == Nutrient::S || isTraceElement(n);
}

/// Walks what was told beside what was true.
class Examiner {
public:
  Examiner(const RunPlan& plan, const std::vector<RunEvent>& told, const std::vector<TrueEvent>& truth)
      : m_plan(plan), m_told(told), m_truth(truth), m_struck(told.size(), false) {
    for (const auto& event : told)
      if (const auto* strike = std::get_if<did::Struck>(&event.deed);
          strike && strike->event < m_struck.size())
        m_struck[strike->event] = true;
  }

  std::vector<Moment> moments() {
    std::vector<Moment> out{gear()};
    if (const auto acid = waterBeforeAcid()) out.push_back(*acid);
    out.push_back(clearBeforeNext());
    if (const auto pen = penChecked()) out.push_back(*pen);
    auto rest = weighings();
    for (std::size_t i = 0; i < m_truth.size(); ++i)
      if (const auto* happened = std::get_if<truly::Happened>(&m_truth[i].deed))
        rest.push_back(mishapAt(i, happened->what));
    std::stable_sort(rest.begin(), rest.end(),
                     [](const Moment& a, const Moment& b) { return a.truth < b.truth; });
    out.insert(out.end(), rest.begin(), rest.end());
    return out;
  }

private:
  TrueState after(std::size_t events) const { return trueState(m_plan, m_truth, events); }
  /// How much had truly happened when event `told` was told.
  std::size_t truthBefore(std::size_t told) const {
    std::size_t out = 0;
    while (out < m_truth.size() && m_truth[out].afterTold <= told)
      ++out;
    return out;
  }
  template <class Deed> std::optional<std::size_t> firstTrue(std::size_t from = 0) const {
    for (auto i = from; i < m_truth.size(); ++i)
      if (std::holds_alternative<Deed>(m_truth[i].deed)) return i;
    return std::nullopt;
  }

  Moment gear() const {
    const auto salt = firstTrue<truly::Filled>().value_or(m_truth.size());
    const auto wears = after(salt).wears;
    Moment out{MomentKind::GearBeforeSalt, {}, 0, 0, false, salt, toldAt(salt), {}, {}, {}, {}};
    out.well = salt < m_truth.size() && std::all_of(wears.begin(), wears.end(), [](bool on) { return on; });
    return out;
  }
  std::size_t toldAt(std::size_t truth) const {
    return truth < m_truth.size() ? m_truth[truth].afterTold : m_told.size();
  }

  std::optional<Moment> waterBeforeAcid() const {
    std::optional<Moment> out;
    for (std::size_t i = 0; i < m_truth.size(); ++i) {
      const auto* tipped = std::get_if<truly::Tipped>(&m_truth[i].deed);
      if (!tipped || tipped->vessel >= m_plan.vessels.size()) continue;
      const auto before = after(i);
      for (std::size_t p = 0; p < before.cup.size(); ++p) {
        if (before.cup[p] <= Mass{} || !isAcidOrBase(m_plan.shelf[p])) continue;
        const bool well = before.vessels[tipped->vessel].water > Volume{};
        if (out && (well || !out->well)) continue;
        out = Moment{MomentKind::WaterBeforeAcid, {}, tipped->vessel, p, well, i, toldAt(i), {}, {}, {}, {}};
      }
    }
    return out;
  }

  /// The first that was told clear and was not; well where there is none.
  Moment clearBeforeNext() const {
    Moment out{MomentKind::ClearBeforeNext, {}, 0, 0, true, m_truth.size(), m_told.size(), {}, {}, {}, {}};
    bool any = false;
    for (std::size_t e = 0; e < m_told.size(); ++e) {
      const auto* clear = std::get_if<did::Clear>(&m_told[e].deed);
      if (!clear || m_struck[e]) continue;
      any = true;
      const auto there = truthBefore(e);
      if (after(there).vessels[clear->vessel].looksClear()) continue;
      out.vessel = clear->vessel, out.product = clear->product, out.well = false;
      out.truth = there, out.told = e;
      return out;
    }
    out.well = any;
    return out;
  }

  std::optional<Moment> penChecked() const {
    for (std::size_t e = 0; e < m_told.size(); ++e) {
      const auto* read = std::get_if<did::Read>(&m_told[e].deed);
      if (!read || m_struck[e]) continue;
      const auto there = truthBefore(e);
      Moment out{MomentKind::PenChecked, {}, read->vessel, 0, false, there, e, {}, {}, {}, {}};
      out.well = after(there).isMended(Mishap::DriftingPen);
      return out;
    }
    return std::nullopt;
  }

  /// Each weight that lies otherwise in the cup than the run believes when it is tipped.
  std::vector<Moment> weighings() const {
    std::vector<Moment> out;
    std::vector<Mass> cup(m_plan.shelf.size());
    for (std::size_t e = 0; e < m_told.size(); ++e) {
      if (m_struck[e]) continue;
      const auto& deed = m_told[e].deed;
      if (const auto* weighed = std::get_if<did::Weighed>(&deed))
        cup[weighed->product] = cup[weighed->product] + weighed->mass;
      if (const auto* taken = std::get_if<did::TakenOut>(&deed))
        cup[taken->product] = cup[taken->product] - taken->mass;
      const auto* tipped = std::get_if<did::Tipped>(&deed);
      if (!tipped) continue;
      const auto told = cup[tipped->product];
      cup[tipped->product] = Mass{};
      if (const auto moment = weighingAt(e, *tipped, told)) out.push_back(*moment);
    }
    return out;
  }
  std::optional<Moment> weighingAt(std::size_t e, const did::Tipped& tipped, Mass told) const {
    // The last truth before it that still has the cup full.
    auto there = truthBefore(e);
    while (there > 0 && after(there).cup[tipped.product] <= Mass{}) {
      if (m_truth[there - 1].afterTold + 1 < e) return std::nullopt;
      --there;
    }
    if (there == 0) return std::nullopt;
    const auto truly = after(there).cup[tipped.product];
    Mass tolerance;
    for (const auto& step : m_plan.vessels[tipped.vessel].steps)
      if (step.product == tipped.product) tolerance = step.tolerance;
    if (std::abs((told - truly).grams()) <= tolerance.grams()) return std::nullopt;
    return Moment{
        MomentKind::Weighed, {}, tipped.vessel, tipped.product, false, there, e, told, truly, {}, {}};
  }

  Moment mishapAt(std::size_t i, const PlannedMishap& what) const {
    Moment out{MomentKind::Mishap, what, what.vessel, what.product, false, i + 1, toldAt(i), {}, {}, {}, {}};
    const auto end = after(m_truth.size());
    switch (what.mishap) {
    case Mishap::Draught:
      out.well = end.isMended(what.mishap);
      break;
    case Mishap::MislabelledCup:
    case Mishap::SwappedCups:
      out.well = end.isMended(what.mishap);
      if (const auto tip = tipOfOther(i, what)) {
        out.well = false, out.truth = *tip;
        out.trueMass = after(*tip).cup[what.other];
      }
      break;
    case Mishap::WontDissolve:
      out.well = toldClearRightly(what);
      break;
    case Mishap::DriftingPen:
      readAgainstTruth(out);
      break;
    }
    return out;
  }
  /// When the wrong salt went in, where it did.
  std::optional<std::size_t> tipOfOther(std::size_t from, const PlannedMishap& what) const {
    for (auto i = from; i < m_truth.size(); ++i) {
      const auto* tipped = std::get_if<truly::Tipped>(&m_truth[i].deed);
      if (!tipped || tipped->vessel != what.vessel) continue;
      const auto cup = after(i).cup;
      if (cup[what.other] > Mass{} && cup[what.product] <= Mass{} && !isStepOf(what.vessel, what.other, i))
        return i;
    }
    return std::nullopt;
  }
  /// The other salt's own turn in the same vessel: what is told to be tipped then is that salt.
  bool isStepOf(std::size_t vessel, std::size_t product, std::size_t truth) const {
    for (auto e = m_truth[truth].afterTold; e < m_told.size(); ++e) {
      const auto* tipped = std::get_if<did::Tipped>(&m_told[e].deed);
      if (!tipped || m_struck[e]) continue;
      return tipped->product == product && tipped->vessel == vessel;
    }
    return false;
  }
  bool toldClearRightly(const PlannedMishap& what) const {
    for (std::size_t e = 0; e < m_told.size(); ++e) {
      const auto* clear = std::get_if<did::Clear>(&m_told[e].deed);
      if (!clear || m_struck[e] || clear->product != what.product || clear->vessel != what.vessel) continue;
      return after(truthBefore(e)).vessels[what.vessel].looksClear();
    }
    return false;
  }
  void readAgainstTruth(Moment& out) const {
    for (std::size_t e = 0; e < m_told.size(); ++e) {
      const auto* read = std::get_if<did::Read>(&m_told[e].deed);
      if (!read || m_struck[e] || read->vessel != out.vessel || !read->conductivity) continue;
      const auto state = runState(m_plan, {m_told.begin(), m_told.begin() + static_cast<std::ptrdiff_t>(e)});
      if (!state) continue;
      const auto vessel = after(truthBefore(e)).vessels[out.vessel];
      const auto truly = trueReading(m_plan, vessel, madeUpTo(m_plan, *state, out.vessel)).conductivity;
      out.toldReading = read->conductivity, out.trueReading = truly;
      out.truth = truthBefore(e), out.told = e;
      const double off = (*read->conductivity - truly).milliSiemensPerCm();
      out.well = std::abs(off) <= penReads * truly.milliSiemensPerCm();
      return;
    }
  }

  const RunPlan& m_plan;
  const std::vector<RunEvent>& m_told;
  const std::vector<TrueEvent>& m_truth;
  std::vector<bool> m_struck;
};

void reckonFeed(Debrief& out) {
  double sum = 0;
  int counted = 0;
  for (const auto n : allNutrients) {
    const double planned = out.plannedMgPerLitre.of(n);
    if (!counts(n) || planned < scoredFromMgPerLitre) continue;
    const double percent = 100 * (out.trueMgPerLitre.of(n) - planned) / planned;
    sum += std::min(std::abs(percent), allOfIt);
    ++counted;
    if (std::abs(percent) >= worthTellingPercent) out.offPercent.emplace_back(n, percent);
  }
  std::stable_sort(out.offPercent.begin(), out.offPercent.end(),
                   [](const auto& a, const auto& b) { return std::abs(a.second) > std::abs(b.second); });
  out.meanOffPercent = counted > 0 ? sum / counted : 0;
  out.chemistry = fullChemistryPoints * std::clamp(1 - out.meanOffPercent / worthlessPercent, 0.0, 1.0);
}

void reckonSafety(Debrief& out) {
  int steps = 0, done = 0;
  for (const auto& moment : out.moments) {
    if (moment.kind == MomentKind::Weighed || moment.kind == MomentKind::Mishap) continue;
    ++steps;
    done += moment.well ? 1 : 0;
  }
  out.safety = steps > 0 ? fullSafetyPoints * done / steps : 0;
}

} // namespace

Debrief debriefOf(const RunPlan& plan, const std::vector<RunEvent>& told,
                  const std::vector<TrueEvent>& truth) {
  Debrief out;
  out.moments = Examiner(plan, told, truth).moments();
  const auto state = runState(plan, told);
  const auto believed = state ? *state : RunState{};
  if (state) {
    const auto result = runResult(plan, believed);
    out.plannedMgPerLitre = result.plannedMgPerLitre;
    out.toldMgPerLitre = result.actualMgPerLitre;
    out.trueMgPerLitre = trueFeed(plan, trueState(plan, truth), believed);
  }
  reckonFeed(out);
  reckonSafety(out);
  return out;
}

} // namespace butte::core
