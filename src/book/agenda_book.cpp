#include "agenda_book.h"

#include "scale_check.h"
#include "tank_line.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace butte::book {

using core::Day;
using std::chrono::days;

namespace {

constexpr double mostFillDays = 3650;

class AgendaGatherer {
public:
  AgendaGatherer(Store& store, const AgendaAsked& asked) : m_store(store), m_asked(asked) {}

  core::Result<AgendaBook> gather() {
    for (const auto step : {&AgendaGatherer::chores, &AgendaGatherer::lines, &AgendaGatherer::pens,
                            &AgendaGatherer::scales, &AgendaGatherer::waters, &AgendaGatherer::mixing})
      if (const auto trouble = (this->*step)()) return *trouble;
    bags();
    std::vector<core::Chore> all;
    for (const auto& item : m_out.items)
      all.push_back(item.chore);
    m_out.due = core::agenda(all, m_out.told, m_asked.today, m_asked.to, m_asked.repeats);
    return std::move(m_out);
  }

private:
  void add(Cause cause, const char* code, const std::string& uid, const std::string& name, Day due,
           std::optional<int> afterDays = {}) {
    AgendaItem item;
    item.cause = cause;
    item.name = name;
    item.uid = uid;
    item.chore.key = std::string(code) + ":" + uid;
    item.chore.starts = due;
    item.chore.afterDays = afterDays;
    m_out.items.push_back(std::move(item));
  }

  Trouble chores() {
    return m_store.eachRecord(Kind::Chore, [&](const Record& record, Moment) {
      const auto chore = choreFromJson(record.body);
      if (record.binnedAt || !chore) return true;
      AgendaItem item;
      item.name = chore->name;
      item.note = chore->note;
      item.uid = record.ref.uid;
      item.chore = {record.ref.uid, chore->starts, chore->repeat, chore->afterDays};
      m_out.items.push_back(std::move(item));
      return true;
    });
  }

  Trouble lines() {
    const auto trouble = m_store.eachRecord(Kind::ChoreLine, [&](const Record& record, Moment) {
      auto line = choreLineFromJson(record.body);
      if (record.binnedAt || !line) return true;
      m_out.told.push_back({line->key, line->due, line->did, line->to, line->at.seconds});
      m_out.lines.emplace_back(record.ref.uid, std::move(line).value());
      return true;
    });
    std::stable_sort(m_out.lines.begin(), m_out.lines.end(),
                     [](const auto& a, const auto& b) { return a.second.at < b.second.at; });
    return trouble;
  }

  /// Of each vessel in whose log a pen was ever calibrated.
  Trouble pens() {
    std::map<std::pair<std::string, std::string>, Moment> last; // vessel, "ec" or "ph"
    if (const auto trouble = m_store.eachRecord(Kind::TankLine, [&](const Record& record, Moment) {
          const auto line = tankLineFromJson(record.body);
          if (record.binnedAt || !line || line->did != TankDid::Calibrated) return true;
          auto& newest = last[{line->vesselUid, line->about}];
          newest = std::max(newest, line->at);
          return true;
        }))
      return trouble;
    for (const auto& [pen, at] : last) {
      const auto vessel = m_store.read({Kind::Vessel, pen.first});
      if (!vessel) return vessel.problem();
      if (!*vessel || (*vessel)->binnedAt) continue;
      const bool isPh = pen.second == "ph";
      add(isPh ? Cause::CalibratePh : Cause::CalibrateEc, isPh ? "calibrate_ph" : "calibrate_ec", pen.first,
          nameIn(Kind::Vessel, (*vessel)->body), m_asked.dayOf(at) + days(calibrateAfterDays),
          calibrateAfterDays);
    }
    return std::nullopt;
  }

  Trouble scales() {
    std::map<std::string, Moment> last;
    if (const auto trouble = m_store.eachRecord(Kind::ScaleCheck, [&](const Record& record, Moment) {
          const auto check = scaleCheckFromJson(record.body);
          if (!record.binnedAt && check) last[check->scale] = std::max(last[check->scale], check->at);
          return true;
        }))
      return trouble;
    for (const auto& [scale, at] : last)
      add(Cause::CheckScale, "check_scale", scale, scale, m_asked.dayOf(at) + days(checkScaleAfterDays),
          checkScaleAfterDays);
    return std::nullopt;
  }

  Trouble waters() {
    return m_store.eachRecord(Kind::Water, [&](const Record& record, Moment) {
      if (record.binnedAt || !record.body.contains("reports")) return true;
      std::optional<Day> newest;
      for (const auto& report : record.body["reports"])
        if (const auto day = dayFromIso(report.value("date", std::string())))
          newest = std::max(newest.value_or(*day), *day);
      if (newest)
        add(Cause::AnalyseWater, "analyse_water", record.ref.uid, nameIn(Kind::Water, record.body),
            *newest + days(analyseAfterDays), analyseAfterDays);
      return true;
    });
  }

  /// The first of a formula's tanks that its feed per day empties, counted from the day it was mixed.
  Trouble mixing() {
    if (!m_asked.plan) return std::nullopt;
    for (const auto& [uid, formula] : m_asked.plan->formulas) {
      const auto mixed = mixedOn(uid, formula);
      if (!mixed || !formula.fillDays) continue;
      const int lasts = static_cast<int>(std::floor(std::min(*formula.fillDays, mostFillDays)));
      // A formula that nobody mixed again for so long is not in use.
      if (*mixed + days(lasts + forgottenAfterDays) >= m_asked.today)
        add(Cause::Mix, "mix", uid, formula.name, *mixed + days(lasts));
    }
    return std::nullopt;
  }

  /// The newest batch of it, or the day that was typed.
  std::optional<Day> mixedOn(const std::string& uid, const PlannedFormula& formula) {
    auto out = dayFromIso(formula.mixedOn);
    BatchFilter filter;
    filter.formulaUid = uid;
    const auto newest = m_store.batches(filter, std::nullopt, 1);
    if (newest && !newest->empty()) {
      const auto day = m_asked.dayOf(newest->front().at);
      out = std::max(out.value_or(day), day);
    }
    return out;
  }

  void bags() {
    if (!m_asked.shelf || !m_asked.account || !m_asked.products) return;
    for (std::size_t i = 0; i < m_asked.shelf->lots.size(); ++i) {
      const auto& [uid, lot] = m_asked.shelf->lots[i];
      constexpr double crumbs = 0.01; // of a bag
      const bool some = m_asked.account->lots[i].left > m_asked.shelf->coreLots[i].bag * crumbs;
      if (lot.bestBefore && some)
        add(Cause::BestBefore, "best_before", uid, lot.name + (lot.mark.empty() ? "" : ", " + lot.mark),
            m_asked.dayOf(*lot.bestBefore) - days(bestBeforeWarnedDays));
    }
    for (const auto& product : *m_asked.products)
      if (product.orderWithinDays && product.isWanted())
        add(Cause::Order, "order", product.id, product.name,
            m_asked.today + days(static_cast<int>(std::floor(std::min(*product.orderWithinDays, 3650.0)))),
            quietAfterOrderDays);
  }

  Store& m_store;
  const AgendaAsked& m_asked;
  AgendaBook m_out;
};

} // namespace

core::Result<AgendaBook> agendaBook(Store& store, const AgendaAsked& asked) {
  return AgendaGatherer(store, asked).gather();
}

} // namespace butte::book
