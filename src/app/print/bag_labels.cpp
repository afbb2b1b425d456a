#include "print/bag_labels.h"

#include "cautions.h"
#include "edits/bench_edits.h"
#include "print/hazard_facts.h"
#include "services/units_shown.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QLocale>

namespace butte::app {

namespace {

/// Its last "tipped" is when it was filled.
QString filledOn(const BenchEdits& run, std::size_t vessel) {
  const auto stands = run.standing();
  for (auto i = run.events().size(); i > 0; --i) {
    const auto& event = run.events()[i - 1];
    const auto* tipped = std::get_if<core::did::Tipped>(&event.deed);
    if (!tipped || tipped->vessel != vessel || !stands[i - 1]) continue;
    const auto day = QDateTime::fromMSecsSinceEpoch(event.atMilliseconds).date();
    return QLocale().toString(day, QLocale::ShortFormat) +
           (event.by.empty() ? QString() : ", " + qtext(event.by));
  }
  return {};
}

QString lotsOf(const BenchEdits& run, std::size_t vessel) {
  QStringList out;
  for (const auto& lot : run.state().lots)
    if (lot.vessel == vessel && !lot.lot.empty()) out << qtext(lot.lot);
  return out.isEmpty() ? QString() : tr(" · lot %1").arg(out.join(", ").toHtmlEscaped());
}

QString label(const BenchEdits& run, const UnitsShown& units, std::size_t vessel) {
  const auto& bag = run.plan().vessels[vessel];
  const auto& step = bag.steps.front();
  QStringList hazards;
  for (const auto& caution :
       words::cautionsFor({hazardFacts(run.document(), run.plan().shelf[step.product])}))
    hazards << "⚠ " + qtext(caution.text).toHtmlEscaped();
  return tr("<table width='100%' cellpadding='7' cellspacing='0' border='1' style='border-style: solid; "
            "border-color: black'><tr><td><span style='font-size:17pt'><b>%1</b></span> &nbsp; <span "
            "style='font-size:15pt'><b>%2</b></span><br>%3: for %4 of feed%5<br>Filled: %6<br><span "
            "style='font-size:7.5pt'>Dissolve it by itself, in plenty of water. Keep dry and closed, away "
            "from "
            "children, food and drink. The product's own label and safety data sheet rule.<br>%7</span>"
            "</td></tr></table><p style='font-size:4pt'> </p>")
      .arg(run.nameOf(step.product).toHtmlEscaped(),
           units.text(run.state().vessels[vessel].of[step.product].in), run.name().toHtmlEscaped(),
           units.text(bag.volume * run.state().ratio), lotsOf(run, vessel), filledOn(run, vessel),
           hazards.join("<br>"));
}

} // namespace

QStringList bagLabels(const BenchEdits& run, const UnitsShown& units) {
  QStringList out;
  for (std::size_t v = 0; v < run.plan().vessels.size(); ++v) {
    const auto& bag = run.plan().vessels[v];
    if (bag.isBag && run.state().vessels[v].of[bag.steps.front().product].in > core::Mass{})
      out << label(run, units, v);
  }
  return out;
}

} // namespace butte::app
