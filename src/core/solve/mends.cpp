#include "solve/mends.h"

#include "solve/linear_model.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

/// A band wider than this asks for nothing any more: no mend.
constexpr double widestBandPercent = 100;

using Eigen::Index;
using Eigen::VectorXd;

/// A widened band stands a hair beyond what is needed, in the tenths that a person would type.
double tenthsAbove(double value) {
  return std::ceil(value * 10 - 1e-6) / 10;
}

class Mender {
public:
  Mender(const SolveRequest& request, const SolveAnswer& answer)
      : m_request(request), m_answer(answer), m_off(offBands(request, answer.grams)) {}

  void addProducts(const std::vector<ShelfProduct>& candidates) {
    std::vector<Mend> best;
    for (const auto& candidate : candidates) {
      Mend mend;
      mend.kind = MendKind::AddProduct;
      mend.product = candidate.id;
      mend.request = m_request;
      mend.request.shelf.push_back(candidate);
      if (mend.request.objective == Objective::Cheapest && !candidate.pricePerKg)
        mend.request.shelf.back().pricePerKg = 0; // its price is not known: it is tried for what it brings
      if (auto tried = solved(std::move(mend))) best.push_back(std::move(*tried));
    }
    sort(best);
    for (std::size_t i = 0; i < best.size() && i < 3; ++i)
      m_found.push_back(std::move(best[i]));
  }

  void bandsFirst() {
    if (m_request.require != Require::Best || m_request.objective != Objective::Closest) return;
    Mend mend;
    mend.kind = MendKind::BandsFirst;
    mend.request = m_request;
    mend.request.require = Require::BandsFirst;
    keep(std::move(mend));
  }

  void letFree() {
    for (std::size_t j = 0; j < m_request.shelf.size(); ++j) {
      if (!m_request.shelf[j].locked) continue;
      Mend mend;
      mend.kind = MendKind::LetFree;
      mend.product = m_request.shelf[j].id;
      mend.request = m_request;
      mend.request.shelf[j].locked.reset();
      keep(std::move(mend));
    }
  }

  void liftCaps() {
    for (std::size_t c = 0; c < m_request.caps.size(); ++c) {
      Mend mend;
      mend.kind = MendKind::LiftCap;
      mend.nutrient = m_request.caps[c].nutrient;
      mend.request = m_request;
      mend.request.caps.erase(mend.request.caps.begin() + static_cast<std::ptrdiff_t>(c));
      const auto free = solve(mend.request);
      if (!free || free->status == SolveStatus::Impossible) continue;
      Cap cap = m_request.caps[c];
      cap.milligramsPerLitre = tenthsAbove(resultOf(mend.request, free->grams, cap.nutrient));
      mend.value = cap.milligramsPerLitre;
      if (mend.value <= m_request.caps[c].milligramsPerLitre) continue;
      mend.request = m_request;
      mend.request.caps[c] = cap;
      keep(std::move(mend));
    }
  }

  /// An element's own band up to where it stands; or the band of what holds it, as far as it must give.
  void widenBands() {
    for (const auto& reason : m_answer.reasons) {
      if (auto* row = rowOf(m_request, reason.nutrient))
        widen(reason.nutrient, std::abs(row->deviationPercent(reason.has)), m_request.require);
      for (const auto& limit : reason.limits) {
        if (limit.kind != LimitKind::Band || limit.beyond) continue;
        if (const auto needed = neededBand(reason.nutrient, limit.nutrient))
          widen(limit.nutrient, *needed, Require::BandsFirst);
      }
    }
  }

  void morePure(const std::vector<WaterOption>& waters) {
    for (std::size_t o = 0; o < waters.size(); ++o) {
      const auto& option = waters[o];
      const auto at = [&](double share) {
        Mend mend;
        mend.kind = MendKind::MorePure;
        mend.option = o;
        mend.value = share;
        mend.request = m_request;
        mend.request.water = option.at(share);
        return solved(std::move(mend));
      };
      // Too much of it may take away what was good in the water: look along the whole way first.
      std::optional<Mend> best;
      double before = option.shareNow;
      for (int i = 1; i <= 10; ++i) {
        const double share = option.shareNow + (option.shareMost - option.shareNow) * i / 10;
        auto tried = at(share);
        const bool better = tried && (!best || tried->offAfter < best->offAfter);
        if (better) before = share - (option.shareMost - option.shareNow) / 10;
        if (better) best = std::move(tried);
      }
      if (!best) continue;
      // The smallest share in hundredths that does as well.
      for (double low = std::round(before * 100), high = std::ceil(best->value * 100 - 1e-9);
           high - low > 1;) {
        const double middle = std::floor((low + high) / 2);
        auto tried = at(middle / 100);
        const bool asGood = tried && tried->offAfter <= best->offAfter;
        (asGood ? high : low) = middle;
        if (asGood) best = std::move(tried);
      }
      m_found.push_back(std::move(*best));
    }
  }

  std::vector<Mend> taken(std::size_t most) {
    sort(m_found);
    if (m_found.size() > most) m_found.resize(most);
    return std::move(m_found);
  }

private:
  static const TargetRow* rowOf(const SolveRequest& request, Nutrient n) {
    for (const auto& row : request.rows) {
      if (row.nutrient == n) return &row;
    }
    return nullptr;
  }

  static double resultOf(const SolveRequest& request, const std::vector<Mass>& grams, Nutrient n) {
    double sum = request.water.milligramsPerLitre.of(n);
    for (std::size_t j = 0; j < grams.size(); ++j)
      sum +=
          request.shelf[j].composition.massFraction.of(n) * (grams[j] / request.volume).milligramsPerLitre();
    return sum;
  }

  std::optional<Mend> solved(Mend mend) const {
    auto answer = solve(mend.request);
    if (!answer || answer->status == SolveStatus::Impossible) return std::nullopt;
    mend.answer = std::move(answer).value();
    mend.offBefore = m_off;
    mend.offAfter = offBands(mend.request, mend.answer.grams);
    const bool helps =
        mend.offAfter < m_off || (mend.offAfter == m_off && mend.answer.violation < 0.8 * m_answer.violation);
    return helps ? std::optional(std::move(mend)) : std::nullopt;
  }

  void keep(Mend mend) {
    if (auto good = solved(std::move(mend))) m_found.push_back(std::move(*good));
  }

  void widen(Nutrient nutrient, double percent, Require require) {
    const double value = tenthsAbove(percent);
    if (value > widestBandPercent) return;
    for (const auto& known : m_found) {
      if (known.kind == MendKind::WidenBand && known.nutrient == nutrient && known.value <= value) return;
    }
    Mend mend;
    mend.kind = MendKind::WidenBand;
    mend.nutrient = nutrient;
    mend.value = value;
    mend.request = m_request;
    mend.request.require = require;
    for (auto& row : mend.request.rows) {
      if (row.nutrient == nutrient && row.tolerancePercent < value) row.tolerancePercent = value;
    }
    keep(std::move(mend));
  }

  /// How wide the band of `held` must be for `off` to reach its own, found by halving.
  std::optional<double> neededBand(Nutrient off, Nutrient held) const {
    const auto* row = rowOf(m_request, held);
    if (!row) return std::nullopt;
    const auto reaches = [&](double percent) {
      SolveRequest wider = m_request;
      wider.require = Require::BandsFirst;
      for (auto& r : wider.rows) {
        if (r.nutrient == held) r.tolerancePercent = percent;
      }
      const auto answer = solve(wider);
      return answer && answer->status != SolveStatus::Impossible &&
             rowOf(wider, off)->contains(resultOf(wider, answer->grams, off));
    };
    double low = row->tolerancePercent, high = widestBandPercent;
    if (low >= high || !reaches(high)) return std::nullopt;
    while (high - low > 0.05) {
      const double middle = (low + high) / 2;
      (reaches(middle) ? high : low) = middle;
    }
    return high;
  }

  static void sort(std::vector<Mend>& mends) {
    std::stable_sort(mends.begin(), mends.end(), [](const Mend& a, const Mend& b) {
      return a.offAfter != b.offAfter ? a.offAfter < b.offAfter
                                      : a.answer.violation < b.answer.violation - 1e-9;
    });
  }

  const SolveRequest& m_request;
  const SolveAnswer& m_answer;
  int m_off;
  std::vector<Mend> m_found;
};

} // namespace

int offBands(const SolveRequest& request, const std::vector<Mass>& grams) {
  NutrientAmounts feed = request.water.milligramsPerLitre;
  for (std::size_t j = 0; j < grams.size(); ++j)
    feed.addScaled(request.shelf[j].composition.massFraction,
                   (grams[j] / request.volume).milligramsPerLitre());
  int off = 0;
  for (const auto& row : request.rows)
    off += !row.contains(feed.of(row.nutrient));
  for (const auto& wish : request.ratios)
    off += !wish.contains(ratioOf(wish, feed).value_or(0));
  return off;
}

std::vector<Mend> mendsFor(const SolveRequest& request, const SolveAnswer& answer,
                           const std::vector<ShelfProduct>& candidates,
                           const std::vector<WaterOption>& waters, std::size_t most) {
  if (answer.status != SolveStatus::Best) return {};
  Mender mender(request, answer);
  mender.bandsFirst();
  mender.addProducts(candidates);
  mender.letFree();
  mender.liftCaps();
  mender.morePure(waters);
  mender.widenBands();
  return mender.taken(most);
}

} // namespace butte::core
