#include "edits/bench_mends.h"

#include "edits/bench_edits.h"

namespace butte::app {

using core::RunDeed;
namespace did = core::did;

template <class Deed> std::optional<std::size_t> BenchMends::lastOf() const {
  const auto stands = m_run.standing();
  for (auto i = stands.size(); i > 0; --i)
    if (stands[i - 1] && std::holds_alternative<Deed>(m_run.events()[i - 1].deed)) return i - 1;
  return std::nullopt;
}

std::optional<BenchMends::Tipped> BenchMends::movable() const {
  const auto at = m_run.at();
  if (at.phase == core::RunPhase::Tip)
    return Tipped{m_run.plan().vessels[at.vessel].steps[at.step].product, at.vessel, {}};
  const auto last = lastOf<did::Tipped>();
  if (!last) return std::nullopt;
  const auto& deed = std::get<did::Tipped>(m_run.events()[*last].deed);
  return Tipped{deed.product, deed.vessel, last};
}

bool BenchMends::canMove() const {
  return m_run.plan().vessels.size() > 1 && movable().has_value();
}

/// What was told of this product since, the newest first, and the event itself.
std::vector<RunDeed> BenchMends::strikesFrom(std::size_t event, std::size_t product) const {
  const auto stands = m_run.standing();
  std::vector<RunDeed> out;
  for (auto i = stands.size(); i > event; --i) {
    const auto& deed = m_run.events()[i - 1].deed;
    const auto* clear = std::get_if<did::Clear>(&deed);
    const auto* tipped = std::get_if<did::Tipped>(&deed);
    const bool ofIt = (clear && clear->product == product) || (tipped && tipped->product == product);
    if (stands[i - 1] && (i - 1 == event || ofIt)) out.push_back(did::Struck{i - 1});
  }
  return out;
}

std::vector<RunDeed> BenchMends::moved(std::size_t vessel) const {
  const auto what = movable();
  auto out = what->event ? strikesFrom(*what->event, what->product) : std::vector<RunDeed>();
  out.push_back(did::Tipped{what->product, vessel});
  return out;
}

std::optional<std::size_t> BenchMends::swappable() const {
  const auto last = lastOf<did::Weighed>();
  if (!last) return std::nullopt;
  return std::get<did::Weighed>(m_run.events()[*last].deed).product;
}

std::vector<RunDeed> BenchMends::swapped(std::size_t product) const {
  const auto last = *lastOf<did::Weighed>();
  auto weighed = std::get<did::Weighed>(m_run.events()[last].deed);
  const auto was = weighed.product;
  const auto tipped = lastOf<did::Tipped>();
  auto out = strikesFrom(last, was);
  weighed.product = product;
  weighed.lot.clear(); // of another bag
  out.push_back(weighed);
  const auto* into =
      tipped && *tipped > last ? std::get_if<did::Tipped>(&m_run.events()[*tipped].deed) : nullptr;
  if (into && into->product == was) out.push_back(did::Tipped{product, into->vessel});
  return out;
}

bool BenchMends::isBeyondMark(core::Volume volume) const {
  return volume > m_run.plan().vessels[m_run.at().vessel].volume * m_run.state().ratio;
}

std::vector<RunDeed> BenchMends::poured(core::Volume volume) const {
  const auto vessel = m_run.at().vessel;
  const auto more = volume - m_run.state().vessels[vessel].water;
  if (more <= core::Volume{}) return {};
  return {did::Poured{vessel, more}};
}

std::vector<RunDeed> BenchMends::allLarger(core::Volume volume) const {
  auto out = poured(volume);
  out.push_back(did::Rescaled{volume / m_run.plan().vessels[m_run.at().vessel].volume});
  return out;
}

std::vector<RunDeed> BenchMends::leftWeaker(core::Volume volume) const {
  return {did::ToppedUp{m_run.at().vessel, volume}};
}

} // namespace butte::app
