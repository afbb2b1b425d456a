#include "tank/tank_replay.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

/// What a line changes in the vessel.
class Done {
public:
  Done(BalanceDay& day) : m_day(day) {}

  void operator()(const logged::Poured& deed) { pour(deed.liquid, deed.volume); }
  void operator()(const logged::FilledTo& deed) {
    pour(deed.liquid, std::max(deed.mark - m_day.content.volume, Volume{}));
  }
  void operator()(const logged::Dissolved& deed) {
    m_day.content.milligrams.addScaled(deed.milligrams, 1);
    m_day.content.alkalinityMeq += deed.alkalinityMeq;
  }
  void operator()(const logged::Drained& deed) {
    const auto volume = std::min(deed.volume, m_day.content.volume);
    m_day.drained = m_day.drained + volume;
    m_day.content.drain(volume);
  }
  void operator()(const logged::Emptied&) {
    m_day.drained = m_day.drained + m_day.content.volume;
    m_day.content = {};
  }
  void operator()(const logged::Rained& deed) { m_day.content.volume = m_day.content.volume + deed.volume; }
  void operator()(const logged::Read&) {}
  void operator()(const logged::Analysed& deed) {
    for (const auto n : deed.named)
      m_day.content.milligrams.add(n, deed.milligramsPerLitre.of(n) * m_day.content.volume.litres() -
                                          m_day.content.milligrams.of(n));
  }

private:
  void pour(const FeedContent& liquid, Volume volume) {
    m_day.refilled = m_day.refilled + volume;
    m_day.content.pour(liquid, volume);
  }
  BalanceDay& m_day;
};

/// Litres that a line brings (or takes); nothing where that is not known beforehand.
std::optional<double> broughtBy(const TankDeed& deed) {
  if (const auto* poured = std::get_if<logged::Poured>(&deed)) return poured->volume.litres();
  if (const auto* drained = std::get_if<logged::Drained>(&deed)) return -drained->volume.litres();
  if (const auto* rained = std::get_if<logged::Rained>(&deed)) return rained->volume.litres();
  if (std::holds_alternative<logged::FilledTo>(deed) || std::holds_alternative<logged::Emptied>(deed))
    return std::nullopt;
  return 0;
}

class Replay {
public:
  Replay(const BalancePlan& plan, const std::vector<TankEntry>& log) : m_plan(plan), m_log(log) {
    m_flow = plan.flow;
  }

  std::vector<BalanceDay> run() {
    std::vector<BalanceDay> out;
    m_day.content = m_plan.start;
    for (int n = 0; n <= m_plan.days; ++n) {
      m_day.refilled = m_day.drained = {};
      m_day.ranDry = false;
      for (; m_next < m_log.size() && m_log[m_next].day <= n; ++m_next) {
        runTo(m_log[m_next].day);
        std::visit(Done(m_day), m_log[m_next].deed);
      }
      runTo(n);
      settleAndRead();
      out.push_back(m_day);
    }
    return out;
  }

private:
  void runTo(double day) {
    if (!(day > m_now)) return;
    followLevels();
    const auto run = passed(m_day.content, m_flow, day - m_now);
    m_day.content = run.content;
    m_day.drained = m_day.drained + run.drained;
    m_day.ranDry |= run.dryAfterDays.has_value();
    m_now = day;
  }

  /// The next level that was read says what plants drink until then; what fills to a mark hides it.
  void followLevels() {
    double brought = 0;
    for (auto i = m_next; i < m_log.size(); ++i) {
      if (m_log[i].day <= m_now) continue;
      if (const auto* read = std::get_if<logged::Read>(&m_log[i].deed); read && read->level) {
        const double days = m_log[i].day - m_now;
        const double lost = m_day.content.volume.litres() + brought - read->level->litres();
        m_flow.transpirationLPerDay =
            std::max(lost / days - m_flow.evaporationLPerDay - m_flow.drainLPerDay + m_flow.rainLPerDay, 0.0);
        return;
      }
      const auto more = broughtBy(m_log[i].deed);
      if (!more) break;
      brought += *more;
    }
    m_flow.transpirationLPerDay = m_plan.flow.transpirationLPerDay;
  }

  void settleAndRead() {
    if (m_plan.precipitate) {
      if (const auto settled = settledReservoir(m_day.content, m_day.floor, m_plan.air)) {
        m_day.content = settled->content;
        m_day.floor = settled->floor;
      }
    }
    m_day.readings.reset();
    if (const auto perLitre = m_day.content.perLitre())
      if (const auto readings = readingsOf(*perLitre, m_plan.air)) m_day.readings = *readings;
  }

  const BalancePlan& m_plan;
  const std::vector<TankEntry>& m_log;
  ReservoirFlow m_flow;
  BalanceDay m_day;
  std::size_t m_next = 0;
  double m_now = 0;
};

} // namespace

std::vector<BalanceDay> replayed(const BalancePlan& plan, const std::vector<TankEntry>& log) {
  return Replay(plan, log).run();
}

} // namespace butte::core
