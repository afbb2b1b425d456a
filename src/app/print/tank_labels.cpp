#include "print/tank_labels.h"

#include "edits/stock_edits.h"
#include "wording/dose_words.h"

#include "document/formula_editor.h"
#include "print/hazard_facts.h"
#include "services/units_shown.h"
#include "stock/tank_side.h"
#include "stock_words.h"
#include "wording/before_mixing.h"
#include "wording/tr.h"

#include <QStringList>
#include <algorithm>

namespace butte::app {
namespace {

QString contents(const FormulaEditor& editor, const UnitsShown& units, const core::TankContent& content) {
  const auto& shelf = editor.document().given.request.shelf;
  auto items = content.items;
  std::stable_sort(items.begin(), items.end(), [](const auto& a, const auto& b) { return a.mass > b.mass; });
  QStringList lines;
  for (const auto& item : items)
    lines << QString("%1 %2").arg(
        units.text(item.mass), QString::fromStdString(editor.nameOf(shelf[item.product].id)).toHtmlEscaped());
  return lines.join(" · ");
}

/// Of the products with a weight.
QString hazards(const FormulaEditor& editor, const std::vector<std::size_t>& products) {
  std::vector<words::HazardFacts> facts;
  for (const auto product : products)
    facts.push_back(hazardFacts(editor.document(), editor.document().given.request.shelf[product]));
  QStringList lines;
  for (const auto& caution : words::cautionsFor(facts)) {
    QStringList names;
    for (const auto& name : caution.products)
      names << QString::fromStdString(name).toHtmlEscaped();
    lines << QString("⚠ %1: %2").arg(names.join(", "), QString::fromStdString(caution.text).toHtmlEscaped());
  }
  return lines.join("<br>");
}

std::vector<std::size_t> productsOf(const core::TankContent& content) {
  std::vector<std::size_t> out;
  for (const auto& item : content.items)
    out.push_back(item.product);
  return out;
}

/// What must never meet this tank as a concentrate.
QString keepFrom(const core::TankContent& content, core::TankSide side) {
  if (content.tank.use == core::TankUse::Acid)
    return tr("Never with bleach (hypochlorite), chelates, carbonates or silicate. Acid into water only.");
  switch (core::keepFrom(side)) {
  case core::KeepFrom::SulfateOrPhosphate:
    return tr("Never mix with a sulfate or phosphate concentrate.");
  case core::KeepFrom::Calcium:
    return tr("Never mix with a calcium concentrate.");
  default:
    return tr("Do not mix with another concentrate.");
  }
}

/// What harms the plants at this dilution, and what falls out in this tank.
QString before(const FormulaEditor& editor, const core::TankContent& content) {
  QString out;
  for (const auto& line : beforeMixing(editor).harmful + fallingInTank(editor, content.tank.name))
    out += QString("<b>⚠ %1</b><br>").arg(line.toHtmlEscaped());
  return out;
}

QString label(const FormulaEditor& editor, const UnitsShown& units, const core::TankContent& content,
              const QString& date) {
  const auto& shelf = editor.document().given.request.shelf;
  const auto side = QString::fromStdString(words::tankSideText(shelf, content));
  const auto name = QString::fromStdString(content.tank.name);
  return QString("<table width='100%' cellpadding='9' cellspacing='0' border='1' style='border-style: solid; "
                 "border-color: black'><tr>"
                 "<td width='18%' align='center' valign='middle'><span "
                 "style='font-size:%1pt'><b>%2</b></span></td>"
                 "<td width='82%'><span style='font-size:17pt'><b>%3</b></span> &nbsp; <span "
                 "style='font-size:12pt'>%4</span><br>")
             .arg(name.size() <= 2   ? 40
                  : name.size() <= 5 ? 22
                                     : 13)
             .arg(name.toHtmlEscaped(), side,
                  QString::fromStdString(editor.document().name).toHtmlEscaped()) +
         tr("<span style='font-size:15pt'><b>1:%1 &nbsp; %2</b></span> &nbsp; of feed<br>"
            "%3, %4. Contents: %5<br><b>%6</b><br>")
             .arg(localFigure(content.factor), statedDose(statedRatioForm(editor), content.factor, units),
                  units.stockText(content.tank.volume), units.densityText(content.densityKgPerLitre),
                  contents(editor, units, content), keepFrom(content, core::tankSide(shelf, content))) +
         before(editor, content) +
         tr("Mixed on: %1 &nbsp; by: __________ &nbsp; checked: __________<br>"
            "<span style='font-size:7.5pt'>Hazards of the ingredients as bought; this is no "
            "classification of the mixture. The products' own labels and "
            "safety data sheets rule. Keep away from children, food and drink; keep "
            "closed.<br>%2</span></td></tr></table>")
             .arg(date.toHtmlEscaped(), hazards(editor, productsOf(content))) +
         "<p style='font-size:4pt'> </p>";
}

/// Finished feed in one vessel.
QString vesselLabel(const FormulaEditor& editor, const UnitsShown& units, const core::DirectMix& mix,
                    const QString& date) {
  const auto& answer = editor.answer();
  std::vector<std::size_t> products;
  QStringList contents;
  for (const auto& step : mix.steps) {
    products.push_back(step.product);
    const auto& id = editor.document().given.request.shelf[step.product].id;
    contents << units.text(step.mass) + " " + QString::fromStdString(editor.nameOf(id)).toHtmlEscaped();
  }
  const auto ph = answer.feed.ph ? tr(" · pH about %1").arg(localNumber(*answer.feed.ph, 1)) : QString();
  return tr("<table width='100%' cellpadding='9' cellspacing='0' border='1' style='border-style: solid; "
            "border-color: black'><tr><td><span style='font-size:17pt'><b>%1</b></span><br><span "
            "style='font-size:15pt'><b>finished feed, %2 · EC %3%4</b></span><br>Went in: %5.<br>Mixed on: "
            "%6 "
            "&nbsp; by: __________ &nbsp; read: EC ______ pH ______<br><span style='font-size:7.5pt'>Not for "
            "drinking. Keep away from children, food and drink; keep closed.<br>%7</span></td></tr></table>")
      .arg(QString::fromStdString(editor.document().name).toHtmlEscaped(), units.text(mix.vessel),
           units.text(answer.feed.conductivity), ph, contents.join(" · "), date.toHtmlEscaped(),
           hazards(editor, products));
}

} // namespace

QStringList tankLabels(const FormulaEditor& editor, const UnitsShown& units, const QString& date) {
  QStringList out;
  if (const auto& direct = editor.answer().direct; direct && *direct)
    out << vesselLabel(editor, units, **direct, date);
  for (const auto& content : editor.answer().stock.tanks) {
    if (!content.items.empty()) out << label(editor, units, content, date);
  }
  return out;
}

} // namespace butte::app
