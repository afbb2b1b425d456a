#include "stations/bench/run_trouble_words.h"

#include "edits/bench_edits.h"
#include "services/units_shown.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "words.h"

#include <QStringList>
#include <cmath>

namespace butte::app {

namespace {

constexpr std::size_t mostElements = 5;
constexpr double littlePercent = 5; ///< what labels promise is hardly closer (common practice)

QString shiftsText(const core::VesselOutcome& outcome) {
  QStringList out;
  for (const auto& [nutrient, percent] : outcome.shiftsPercent) {
    if (nutrient == core::Nutrient::N) continue; // its forms are told
    if (out.size() < static_cast<qsizetype>(mostElements))
      out << QString("%1 %2%3 %")
                 .arg(qtext(words::nutrientSymbol(nutrient)), percent > 0 ? "+" : "",
                      localNumber(percent, 0));
  }
  return out.join(", ");
}

QString fallenText(const BenchEdits& run, const UnitsShown& units, const core::VesselOutcome& outcome) {
  QStringList out;
  for (const auto& fallen : outcome.fallen) {
    const auto name = fallen.product ? run.nameOf(*fallen.product) : qtext(words::solidName(fallen.solid));
    out << tr("%1, %2").arg(name, units.text(core::Concentration::fromGramsPerLitre(fallen.gramsPerLitre)));
  }
  return out.join("; ");
}

QString verdict(const BenchEdits& run, const UnitsShown& units, const core::VesselOutcome& outcome) {
  const auto shifts = shiftsText(outcome);
  if (!outcome.fallen.empty())
    return tr("Falls out there: %1. The plants would get %2. This can't be stirred back: pour it away where "
              "your "
              "rules allow, and make it anew.")
        .arg(fallenText(run, units, outcome), shifts.isEmpty() ? tr("less of it") : shifts);
  if (!outcome.known)
    return tr("What it does there is not known: look for cloud and sediment before you use it.");
  const bool far =
      !outcome.shiftsPercent.empty() && std::abs(outcome.shiftsPercent.front().second) > littlePercent;
  if (far) return tr("Nothing falls out. The feed would be off: %1.").arg(shifts);
  return tr("Nothing falls out, and the feed stays as planned: it can be used.");
}

} // namespace

RunTroubleWords runTroubleWords(const BenchEdits& run, const UnitsShown& units) {
  RunTroubleWords out;
  const auto strays = core::misplacedIn(run.plan(), run.state());
  QStringList lines;
  std::vector<bool> told(run.plan().vessels.size(), false);
  for (const auto& stray : strays) {
    lines << tr("▲ %1 of %2 is in %3, where it does not belong.")
                 .arg(units.text(stray.mass), run.nameOf(stray.product),
                      qtext(run.plan().vessels[stray.vessel].name));
    if (stray.lackedBy && !out.to) out.to = stray;
    told[stray.vessel] = true;
  }
  for (std::size_t v = 0; v < told.size(); ++v) {
    if (!told[v]) continue;
    const auto outcome = core::outcomeOf(run.plan(), run.state(), v);
    out.spoilt = out.spoilt || !outcome.fallen.empty();
    lines << verdict(run, units, outcome);
  }
  out.text = lines.join("\n");
  return out;
}

} // namespace butte::app
