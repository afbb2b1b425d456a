#include "calendar/agenda.h"

#include <algorithm>
#include <map>

namespace butte::core {

namespace {

using std::chrono::days;

/// What was told of one chore, the newest word on each day.
class Told {
public:
  Told(const std::vector<ChoreTold>& told, const std::string& key) {
    std::vector<const ChoreTold*> own;
    for (const auto& one : told)
      if (one.key == key) own.push_back(&one);
    std::stable_sort(own.begin(), own.end(),
                     [](const auto* a, const auto* b) { return a->atSeconds < b->atSeconds; });
    for (const auto* one : own) {
      if (one->did != ChoreDid::Moved) m_ended[one->due] = one;
      if (one->did == ChoreDid::Moved) m_moved[one->due] = one->to;
      if (one->did == ChoreDid::Done) m_done = m_last = dayOf(one->atSeconds);
      if (one->did == ChoreDid::LeftOut) m_last = std::max(m_last.value_or(one->due), one->due);
    }
  }

  bool isOver(Day due) const { return m_ended.count(due) > 0; }
  Day onOf(Day due) const {
    const auto moved = m_moved.find(due);
    return moved == m_moved.end() ? due : moved->second;
  }
  /// The day it was done last.
  std::optional<Day> done() const { return m_done; }
  /// The same, or a later one that was left out on purpose.
  std::optional<Day> last() const { return m_last; }

private:
  static Day dayOf(std::int64_t seconds) {
    return std::chrono::floor<days>(std::chrono::sys_seconds(std::chrono::seconds(seconds)));
  }
  std::map<Day, const ChoreTold*> m_ended;
  std::map<Day, Day> m_moved;
  std::optional<Day> m_done, m_last;
};

void addByRule(std::vector<Due>& out, std::size_t index, const std::vector<Day>& falls, const Told& told,
               Day today, Day to) {
  std::optional<Due> late;
  // Whoever did a later one has caught up with those before it.
  const auto caughtUp = told.done();
  for (const auto day : falls) {
    if (told.isOver(day)) continue;
    const auto on = told.onOf(day);
    if (on > to) continue;
    if (on >= today) {
      out.push_back({index, day, on, 0});
      continue;
    }
    if (caughtUp && day <= *caughtUp) continue;
    const int missed = late ? late->missed + 1 : 0;
    late = Due{index, day, on, missed};
  }
  if (late) out.push_back(*late);
}

} // namespace

std::vector<Due> agenda(const std::vector<Chore>& chores, const std::vector<ChoreTold>& told, Day today,
                        Day to, const Repeats& repeats) {
  std::vector<Due> out;
  for (std::size_t i = 0; i < chores.size(); ++i) {
    const auto& chore = chores[i];
    const Told own(told, chore.key);
    if (!chore.rule.empty()) {
      const auto from = std::max(chore.starts, today - days(mostDaysLate));
      addByRule(out, i, repeats(chore.rule, chore.starts, from, to), own, today, to);
      continue;
    }
    auto due = chore.starts;
    if (chore.afterDays && own.last()) due = std::max(due, *own.last() + days(*chore.afterDays));
    if (own.isOver(due) || own.onOf(due) > to) continue;
    out.push_back({i, due, own.onOf(due), 0});
  }
  std::stable_sort(out.begin(), out.end(), [](const Due& a, const Due& b) { return a.on < b.on; });
  return out;
}

} // namespace butte::core
