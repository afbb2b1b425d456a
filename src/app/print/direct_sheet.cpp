#include "print/direct_sheet.h"

#include "document/formula_editor.h"
#include "print/weighing_table.h"
#include "services/units_shown.h"
#include "wording/direct_words.h"
#include "wording/tr.h"
#include "words.h"

namespace butte::app {

namespace {

QString waterText(const core::DirectMix& mix, const UnitsShown& units) {
  QStringList out;
  if (mix.drain > core::Volume{})
    out << tr("☐ Let <b>%1</b> out, so that %2 stays.")
               .arg(units.stockText(mix.drain), units.text(mix.present - mix.drain));
  else if (mix.present > core::Volume{})
    out << tr("<b>%1</b> of feed is in it.").arg(units.text(mix.present));
  if (mix.pour > core::Volume{})
    out << tr("☐ Pour in <b>%1</b> of water; it then stands at %2 and reads EC %3: ______")
               .arg(units.stockText(mix.pour), units.text(mix.mixingVolume), units.text(mix.beforeSalts));
  return out.join("<br>");
}

QString endText(const FormulaEditor& editor, const UnitsShown& units, const core::DirectMix& mix) {
  const auto& feed = editor.answer().feed;
  const auto ph = feed.ph ? tr(", pH about %1").arg(localNumber(*feed.ph, 1)) : QString();
  return (mix.toMark > core::Volume{}
              ? tr("☐ Water to the mark of <b>%1</b> (%2), stir, wait some minutes. ☐ Label on. ")
                    .arg(units.text(mix.vessel), units.stockText(mix.toMark))
              : QString()) +
         tr("<b>Expected:</b> EC %1 at %2 (±5 %)%3. Read: EC ______ pH ______; EC first, then pH.")
             .arg(units.text(feed.conductivity), units.text(core::Temperature::fromCelsius(25)), ph);
}

} // namespace

QString directSheetHtml(const FormulaEditor& editor, const UnitsShown& units) {
  const auto& direct = editor.answer().direct;
  if (!direct) return {};
  if (!*direct)
    return "<p>⚠ " + QString::fromStdString(words::problemText(direct->problem())).toHtmlEscaped() + "</p>";
  const auto& mix = **direct;
  const auto plan = vesselWeighing(editor, mix);
  QStringList readings;
  for (const auto& step : mix.steps)
    readings << "<b>" + units.digits(step.after) + "</b> ______";
  auto out = tr("<p style='margin-bottom:2px'><span style='font-size:12pt'><b>Straight into one vessel of "
                "%1</b></span></p><p>%2</p>")
                 .arg(units.text(mix.vessel), waterText(mix, units));
  if (!plan.empty())
    out += weighingTableHtml(editor, units, plan, readings) + "<p style='margin-top:2px'>" +
           directHowTo(mix, units).toHtmlEscaped() + "</p>";
  out += "<p>" + endText(editor, units, mix) + "</p>";
  const auto acid = acidAfterwards(editor, units);
  return acid.isEmpty() ? out : out + "<p>☐ " + acid.toHtmlEscaped() + tr(" Read: ______") + "</p>";
}

} // namespace butte::app
