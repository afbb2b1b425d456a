#include "stations/stocks/uneven_text.h"

#include "document/formula_editor.h"
#include "dose/draw_down.h"
#include "dose/uneven_feed.h"
#include "services/units_shown.h"
#include "stock_words.h"
#include "wording/tr.h"

#include <QStringList>
#include <algorithm>
#include <cmath>

namespace butte::app {
namespace {

QString nameOf(const FormulaEditor& editor, std::size_t tank) {
  return QString::fromStdString(editor.answer().stock.tanks[tank].tank.name).toHtmlEscaped();
}

/// The levels that were typed, and what they say; nothing said with fewer than two.
struct Levels {
  QString text;
  std::vector<double> draws; ///< per tank, over its due; 1 where it is not known
  bool asked = false, dueKnown = false;
};

QString shareText(const QString& name, double ofDue, double factor, bool dueKnown) {
  if (!dueKnown) return QString("%1 <b>%2 %</b>").arg(name, localNumber(100 * ofDue, 0));
  const auto ratio = ofDue > 0 ? localNumber(factor / ofDue, 0) : QString("∞");
  return tr("%1 gave <b>%2 %</b> of its share (1:%3)").arg(name, localNumber(100 * ofDue, 0), ratio);
}

Levels levelsOf(const FormulaEditor& editor) {
  const auto& dosing = editor.document().dosing;
  const auto& stock = editor.answer().stock;
  Levels out;
  out.draws.resize(stock.tanks.size(), 1.0);
  std::vector<core::Volume> drawn;
  std::vector<double> factors;
  std::vector<std::size_t> tanks;
  for (std::size_t t = 0; t < stock.tanks.size(); ++t) {
    if (!dosing.drawn[t]) continue;
    drawn.push_back(*dosing.drawn[t]);
    factors.push_back(stock.tanks[t].factor);
    tanks.push_back(t);
  }
  if (drawn.size() < 2) return out;
  out.asked = true;
  const auto verdict = core::judgeDrawDown(drawn, factors, dosing.drawnFeed);
  if (!verdict) {
    out.text = "▲ " + QString::fromStdString(words::problemText(verdict.problem())).toHtmlEscaped();
    return out;
  }
  out.dueKnown = verdict->dueKnown;
  QStringList parts;
  for (std::size_t i = 0; i < tanks.size(); ++i) {
    out.draws[tanks[i]] = verdict->ofDue[i];
    parts << shareText(nameOf(editor, tanks[i]), verdict->ofDue[i], factors[i], verdict->dueKnown);
  }
  out.text = parts.join(", ") + (verdict->dueKnown ? "." : tr(" of the fullest."));
  if (!verdict->weak) {
    out.text += tr("<br>They draw alike.");
  } else {
    out.text += tr("<br><b>▲ Tank %1 %2.</b> Look at its suction screen, filter and valve.")
                    .arg(nameOf(editor, tanks[*verdict->weak]),
                         verdict->shut ? tr("gives next to nothing: its line is shut or clogged")
                                       : tr("gives too little"));
  }
  return out;
}

/// "A was made with 80 % of its salts."
QString strengthsText(const FormulaEditor& editor) {
  constexpr double unequal = 0.05; // as for the levels: less is within weighing and marks (common practice)
  const auto& ofPlan = editor.document().dosing.ofPlan;
  QStringList parts;
  double least = 1e9, most = 0;
  for (std::size_t t = 0; t < editor.answer().stock.tanks.size(); ++t) {
    least = std::min(least, ofPlan[t]);
    most = std::max(most, ofPlan[t]);
    if (ofPlan[t] != 1)
      parts << tr("tank %1 holds <b>%2 %</b> of its planned salts")
                   .arg(nameOf(editor, t), localNumber(100 * ofPlan[t], 0));
  }
  if (parts.isEmpty()) return {};
  auto text = parts.join(", ") + ".";
  text[0] = text[0].toUpper();
  if (most - least > unequal * most)
    text += tr(" <b>▲ The sides are no longer in their ratio</b>: more of both does not mend it; add what is "
               "missing to the weak tank, or mix it anew.");
  return text;
}

QString elementsText(const FormulaEditor& editor, const core::DeliveredFeed& feed) {
  QStringList got;
  for (const auto n : {core::Nutrient::N, core::Nutrient::P, core::Nutrient::K, core::Nutrient::Ca,
                       core::Nutrient::Mg, core::Nutrient::S, core::Nutrient::Fe}) {
    const double due = editor.answer().feed.milligramsPerLitre.of(n);
    if (due > 0)
      got << tr("%1 %2 of %3")
                 .arg(QString::fromStdString(words::nutrientSymbol(n)),
                      localFigure(feed.milligramsPerLitre.of(n)), localFigure(due));
  }
  return got.join(", ");
}

} // namespace

QString unevenText(const FormulaEditor& editor, const UnitsShown& units) {
  const auto& dosing = editor.document().dosing;
  const auto levels = levelsOf(editor);
  const auto strengths = strengthsText(editor);
  if (!levels.asked && strengths.isEmpty())
    return tr(
        "Note the level of each tank, let a day go by, note it again, and type what was drawn. A "
        "controller "
        "hides a clogged line: the meter reads right while the plants get only one side. The levels tell. "
        "Where a tank was made weaker or stronger than planned, type how much of its salts went in.");
  QStringList lines;
  for (const auto& said : {levels.text, strengths}) {
    if (!said.isEmpty()) lines << said;
  }
  // Where the feed was measured, the levels say all that was drawn; else a controller makes up for it.
  const bool held = dosing.device == exchange::DosingDevice::Setpoint && !levels.dueKnown;
  const auto setpoint =
      held ? std::optional(dosing.setpoint.value_or(editor.answer().feed.conductivity)) : std::nullopt;
  const auto uneven = core::unevenFeed(core::deliveryOf(editor.document().given, editor.answer()),
                                       levels.draws, dosing.ofPlan, setpoint);
  if (!uneven) {
    lines << tr("▲ With these draws the controller can't reach its setpoint.");
    return lines.join("<br>");
  }
  lines << tr("The plants get, in mg/L: %1. EC %2.")
               .arg(elementsText(editor, uneven->feed), units.text(uneven->feed.conductivity));
  if (held && std::abs(uneven->pace - 1) > 0.02)
    lines << tr("The meter reads right all the same: the controller draws %1 times as much of every tank.")
                 .arg(localNumber(uneven->pace, 2));
  return lines.join("<br>");
}

} // namespace butte::app
