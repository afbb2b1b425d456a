#include "print/weighing_table.h"

#include "document/formula_editor.h"
#include "services/units_shown.h"
#include "wording/direct_words.h"
#include "wording/tr.h"

namespace butte::app {

namespace {

/// In the steps of the scale: what its display must show.
QString shownText(const FormulaEditor& editor, const UnitsShown& units, const core::WeighStep& step) {
  auto text = "<b>" + weighText(step, editor.document().scales, units) + "</b>";
  if (step.loads > 1) text += tr(" in %1 loads").arg(step.loads);
  return text;
}

QString noteText(const FormulaEditor& editor, const UnitsShown& units, const core::WeighStep& step) {
  const auto& p = editor.document().given.request.shelf[step.product];
  auto note = QString::fromStdString(editor.document().scales[step.scale].name).toHtmlEscaped();
  const bool byVolume = p.liquid && p.densityKgPerL; // a syringe measures it, no scale
  if (step.tooFine && !byVolume)
    note += tr(" — <b>too coarse: ±%1 %</b>; make a bigger batch or a pre-stock")
                .arg(localNumber(step.errorPercent, 0));
  if (byVolume)
    note += " · " + units.stockText(core::Volume::fromMillilitres(step.exact.grams() / *p.densityKgPerL));
  return note;
}

/// What a hand writes down: the figure that the scale's display shows.
QString writtenIn(const FormulaEditor& editor, const core::WeighStep& step) {
  return QString::fromStdString(editor.document().scales[step.scale].unit);
}

} // namespace

QString weighingTableHtml(const FormulaEditor& editor, const UnitsShown& units,
                          const std::vector<core::WeighStep>& plan, const QStringList& readings) {
  const bool reads = !readings.isEmpty();
  QString out =
      tr("<table width='100%' cellspacing='0' cellpadding='1.5'><tr><td></td><td>in this "
         "order</td><td align='right'>weigh</td><td>&nbsp;&nbsp;on</td>"
         "<td>actual</td>%1</tr>")
          .arg(reads ? tr("<td>then it reads, %1</td>").arg(units.conductivityUnitName()) : QString());
  for (std::size_t i = 0; i < plan.size(); ++i) {
    const auto& step = plan[i];
    const auto name =
        QString::fromStdString(editor.nameOf(editor.document().given.request.shelf[step.product].id));
    out += QString("<tr><td width='4%'>☐</td><td width='%1%'>%2</td><td width='%3%' align='right'>%4</td>"
                   "<td width='%5%'>&nbsp;&nbsp;%6</td><td width='16%'>__________ %7</td>%8</tr>")
               .arg(reads ? 28 : 34)
               .arg(name.toHtmlEscaped())
               .arg(reads ? 18 : 22)
               .arg(shownText(editor, units, step))
               .arg(reads ? 20 : 24)
               .arg(noteText(editor, units, step), writtenIn(editor, step),
                    reads && static_cast<qsizetype>(i) < readings.size()
                        ? "<td>" + readings[static_cast<qsizetype>(i)] + "</td>"
                        : QString());
  }
  return out + "</table>";
}

} // namespace butte::app
