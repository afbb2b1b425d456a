#include "print/weighing_table.h"

#include "document/formula_editor.h"
#include "services/units_shown.h"
#include "wording/direct_words.h"
#include "wording/tr.h"

namespace butte::app {

namespace {

/// A liquid is measured by a jug or a syringe; nothing for what is weighed.
std::optional<core::Volume> poured(const FormulaEditor& editor, const core::WeighStep& step) {
  const auto& p = editor.document().given.request.shelf[step.product];
  return p.liquid && p.densityKgPerL
             ? std::optional(core::Volume::fromMillilitres(step.exact.grams() / *p.densityKgPerL))
             : std::nullopt;
}

/// In the steps of the scale: what its display must show.
QString shownText(const FormulaEditor& editor, const UnitsShown& units, const core::WeighStep& step) {
  if (const auto volume = poured(editor, step)) return "<b>" + units.stockText(*volume) + "</b>";
  auto text = "<b>" + weighText(step, editor.document().scales, units) + "</b>";
  if (step.loads > 1) text += tr(" in %1 loads").arg(step.loads);
  return text;
}

QString noteText(const FormulaEditor& editor, const UnitsShown& units, const core::WeighStep& step) {
  if (poured(editor, step)) return tr("by jug; it weighs %1").arg(units.text(step.exact));
  auto note = QString::fromStdString(editor.document().scales[step.scale].name).toHtmlEscaped();
  const auto error = localNumber(step.errorPercent, 0);
  if (step.teaspoons > 0) return note + tr(" — <b>±%1 %</b>").arg(error);
  if (step.tooFine) note += tr(" — <b>too coarse: ±%1 %</b>; make a bigger batch or a pre-stock").arg(error);
  return note;
}

/// What a hand writes down: the figure that the scale's display shows.
QString writtenIn(const FormulaEditor& editor, const core::WeighStep& step) {
  return poured(editor, step) ? QString() : QString::fromStdString(editor.document().scales[step.scale].unit);
}

} // namespace

QString weighingTableHtml(const FormulaEditor& editor, const UnitsShown& units,
                          const std::vector<core::WeighStep>& plan, const QStringList& readings) {
  const bool reads = !readings.isEmpty();
  QString out =
      tr("<table width='100%' cellspacing='0' cellpadding='1.5'><tr><td>in, clear</td><td>in this "
         "order</td><td align='right'>weigh</td><td>&nbsp;&nbsp;on</td>"
         "<td>actual</td><td>&nbsp;lot</td>%1</tr>")
          .arg(reads ? tr("<td>then it reads, %1</td>").arg(units.conductivityUnitName()) : QString());
  for (std::size_t i = 0; i < plan.size(); ++i) {
    const auto& step = plan[i];
    const auto name =
        QString::fromStdString(editor.nameOf(editor.document().given.request.shelf[step.product].id));
    out += QString("<tr><td width='7%'>☐ ☐</td><td width='%1%'>%2</td><td width='%3%' align='right'>%4</td>"
                   "<td width='%5%'>&nbsp;&nbsp;%6</td><td width='14%'>________ %7</td><td "
                   "width='11%'>&nbsp;_______</td>%8</tr>")
               .arg(reads ? 22 : 28)
               .arg(name.toHtmlEscaped())
               .arg(reads ? 16 : 20)
               .arg(shownText(editor, units, step))
               .arg(reads ? 17 : 20)
               .arg(noteText(editor, units, step), writtenIn(editor, step),
                    reads && static_cast<qsizetype>(i) < readings.size()
                        ? "<td>" + readings[static_cast<qsizetype>(i)] + "</td>"
                        : QString());
  }
  return out + "</table>";
}

} // namespace butte::app
