#include "stations/bench/run_preparation.h"

#include "bench/weigh_plan.h"
#include "cautions.h"
#include "edits/bench_edits.h"
#include "print/hazard_facts.h"
#include "run/run_order.h"
#include "services/units_shown.h"
#include "stations/bench/run_words.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QStringList>
#include <map>

namespace butte::app {

namespace {

QString row(const QString& head, const QStringList& lines) {
  QStringList safe;
  for (const auto& line : lines)
    safe << line.toHtmlEscaped();
  return QString("<tr><td><b>%1</b></td><td>%2</td></tr>").arg(head.toHtmlEscaped(), safe.join("<br>"));
}

QStringList gear(const BenchEdits& run) {
  std::vector<words::HazardFacts> facts;
  for (const auto& product : run.plan().shelf)
    for (const auto& vessel : run.plan().vessels)
      if (std::any_of(vessel.steps.begin(), vessel.steps.end(),
                      [&](const auto& step) { return run.plan().shelf[step.product].id == product.id; })) {
        facts.push_back(hazardFacts(run.document(), product));
        break;
      }
  QStringList out;
  for (const auto& caution : words::cautionsFor(facts)) {
    constexpr int fewNames = 3;
    QStringList names;
    for (const auto& name : caution.products)
      names << qtext(name);
    const auto more = names.size() > fewNames ? tr(" and %1 more").arg(names.size() - fewNames) : QString();
    out << QString("⚠ %1 (%2%3)").arg(qtext(caution.text), names.mid(0, fewNames).join(", "), more);
  }
  return out;
}

QStringList vessels(const BenchEdits& run, const UnitsShown& units) {
  QStringList out;
  for (const auto& vessel : run.plan().vessels) {
    const bool acid = std::all_of(vessel.steps.begin(), vessel.steps.end(), [&](const auto& step) {
      return core::isAcidOrBase(run.plan().shelf[step.product]);
    });
    const auto first = core::waterFirst(vessel);
    const auto water = acid
                           ? tr("%1 of cool water first, the acid slowly into it").arg(units.stockText(first))
                           : tr("%1 of water first, warm, not boiling").arg(units.stockText(first));
    if (vessel.had.volume > core::Volume{}) {
      out << tr("%1: %2 of feed stays in it, what is more goes out first; then %3 of water")
                 .arg(qtext(vessel.name), units.stockText(vessel.had.volume), units.stockText(first));
      continue;
    }
    out << tr("%1: a clean vessel with a mark at %2 and its label; %3")
               .arg(qtext(vessel.name), units.stockText(vessel.volume), water);
  }
  return out;
}

/// Each scale with what goes on it.
QStringList scales(const BenchEdits& run, const std::function<QString(const std::string&)>& lastCheck) {
  std::map<std::string, QStringList> on;
  for (const auto& vessel : run.plan().vessels)
    for (const auto& step : vessel.steps) {
      auto& names = on[step.scale];
      const auto name = run.nameOf(step.product);
      if (!names.contains(name)) names << name;
    }
  QStringList out;
  for (const auto& [scale, names] : on)
    out << tr("%1 (%2): %3")
               .arg(scale.empty() ? tr("the scale") : qtext(scale), lastCheck(scale), names.join(", "));
  out << tr("Level and hard ground, no fan. A known weight tells whether the scale still shows right.");
  return out;
}

/// What has to be at hand, counted.
QStringList tools(const BenchEdits& run) {
  std::size_t salts = 0, liquids = 0;
  for (std::size_t p = 0; p < run.plan().shelf.size(); ++p)
    for (const auto& vessel : run.plan().vessels)
      if (std::any_of(vessel.steps.begin(), vessel.steps.end(),
                      [&](const auto& step) { return step.product == p; })) {
        ++(run.plan().shelf[p].liquid ? liquids : salts);
        break;
      }
  QStringList out;
  if (salts > 0)
    out << counted(salts, tr("☐ %1 dry spoon and cup, each for its salt alone"),
                   tr("☐ %1 dry spoons and cups, each for its salt alone"));
  if (liquids > 0)
    out << counted(liquids, tr("☐ a jug or syringe for %1 liquid"), tr("☐ jugs or syringes for %1 liquids"));
  if (run.sort() == RunSort::Bags)
    return out << counted(run.plan().vessels.size(), tr("☐ %1 bag that closes, its label"),
                          tr("☐ %1 bags that close, their labels"));
  out << counted(run.plan().vessels.size(), tr("☐ %1 label, written before it is filled"),
                 tr("☐ %1 labels, written before they are filled"));
  return out << tr("☐ a paddle, pump or blender; a torch to look for sediment")
             << tr("☐ EC and pH pens, their standards, water to rinse with");
}

QString reasonWords(core::OrderReason reason) {
  switch (reason) {
  case core::OrderReason::AcidLast:
    return tr("acid into water, and last: the meter shows what is missing");
  case core::OrderReason::PhosphateFirst:
    return tr("dissolves slowly, wants the most water");
  case core::OrderReason::CalciumLeads:
    return tr("leads its own tank, and cools the water");
  case core::OrderReason::CalciumLast:
    return tr("last: phosphate and sulfate are spread by then");
  case core::OrderReason::BigSalt:
    return tr("a big weight while there is room to stir");
  case core::OrderReason::Trace:
    return tr("a small weight, once the big ones are clear");
  case core::OrderReason::ChelateLast:
    break;
  }
  return tr("a chelate: never into what is sour or hot");
}

QStringList order(const BenchEdits& run) {
  QStringList out;
  const bool byChemistry = run.order() == core::OrderSchool::Chemistry;
  for (std::size_t v = 0; v < run.plan().vessels.size(); ++v) {
    QStringList steps;
    const auto& vessel = run.plan().vessels[v];
    for (std::size_t s = 0; s < vessel.steps.size(); ++s) {
      const auto name = run.nameOf(vessel.steps[s].product);
      steps << (byChemistry ? tr("%1 (%2)").arg(name, reasonWords(core::orderReasonOf(run.plan(), v, s)))
                            : name);
    }
    out << qtext(vessel.name) + ": " + steps.join(" → ");
  }
  return out;
}

QStringList tooFine(const BenchEdits& run, const UnitsShown& units) {
  QStringList out;
  for (const auto& vessel : run.plan().vessels) {
    std::vector<core::Mass> weights(run.plan().shelf.size());
    for (const auto& step : vessel.steps)
      weights[step.product] = step.planned;
    for (const auto& step : core::weighPlan(run.plan().shelf, weights, run.document().scales)) {
      if (!step.tooFine) continue;
      out << tr("▲ %1, %2 into %3: may be off by %4 % here. A finer scale, a pre-stock of it, a bigger "
                "batch, or level spoons.")
                 .arg(run.nameOf(step.product), units.text(step.exact), qtext(vessel.name),
                      localNumber(step.errorPercent, 0));
    }
  }
  return out;
}

} // namespace

QString runPreparation(const BenchEdits& run, const UnitsShown& units,
                       const std::function<QString(const std::string& scale)>& lastCheck) {
  QString rows = row(tr("Gear"), gear(run));
  if (run.sort() != RunSort::Bags) rows += row(tr("Vessels"), vessels(run, units));
  rows += row(tr("Tools"), tools(run)) + row(tr("Scales"), scales(run, lastCheck));
  if (run.sort() != RunSort::Bags) rows += row(tr("Order"), order(run));
  if (const auto fine = tooFine(run, units); !fine.isEmpty()) rows += row(tr("Too fine"), fine);
  return QString("<table cellpadding='5'>%1</table><p>%2</p>")
      .arg(rows, qtext(words::generalCaution()).toHtmlEscaped());
}

} // namespace butte::app
