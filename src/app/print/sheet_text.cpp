#include "print/sheet_text.h"

#include "bench/weigh_plan.h"
#include "cautions.h"
#include "document/formula_editor.h"
#include "edits/stock_edits.h"
#include "print/direct_sheet.h"
#include "print/hazard_facts.h"
#include "print/pre_stock_text.h"
#include "print/weighing_table.h"
#include "services/units_shown.h"
#include "stock/acid_tank.h"
#include "stock/dissolving.h"
#include "stock/tank_rounding.h"
#include "stock/tank_side.h"
#include "stock_words.h"
#include "wording/before_mixing.h"
#include "wording/direct_words.h"
#include "wording/dose_words.h"
#include "wording/tr.h"

#include <QLocale>
#include <QStringList>
#include <algorithm>
#include <cmath>

namespace butte::app {
namespace {

using core::Mass;

class Sheet {
public:
  Sheet(const FormulaEditor& editor, const UnitsShown& units, const QString& date)
      : m_editor(editor), m_units(units), m_date(date), m_shelf(editor.document().given.request.shelf) {}

  QString html() {
    QString out = "<html><body>" + head() + before() + ready();
    if (m_editor.answer().direct)
      return out + directSheetHtml(m_editor, m_units) + wrong() + cautions() + "</body></html>";
    m_rounded = roundedTanks();
    for (std::size_t t = 0; t < m_editor.answer().stock.tanks.size(); ++t)
      out += tank(t);
    return out + howTo() + apart() + dosing() + wrong() + cautions() + "</body></html>";
  }

private:
  QString name(std::size_t product) const {
    return QString::fromStdString(m_editor.nameOf(m_shelf[product].id)).toHtmlEscaped();
  }

  QString head() const {
    const auto& d = m_editor.document();
    return tr("<table width='100%'><tr><td><span style='font-size:16pt'><b>%1</b></span><br>water: %2 "
              "&nbsp;·&nbsp; target: %3</td>"
              "<td align='right'>%4<br>weighed by ____________ &nbsp; checked "
              "____________</td></tr></table><hr>")
        .arg(QString::fromStdString(d.name).toHtmlEscaped(),
             QString::fromStdString(d.waterName).toHtmlEscaped(),
             QString::fromStdString(d.targetName).toHtmlEscaped(), m_date.toHtmlEscaped());
  }

  /// What harms the plants or falls out comes before anything is weighed.
  QString before() const {
    const auto told = beforeMixing(m_editor);
    const auto block = [](const QString& head, const QStringList& lines, int points) {
      QStringList marked;
      for (const auto& line : lines)
        marked << "⚠ " + line.toHtmlEscaped();
      return lines.isEmpty() ? QString()
                             : QString("<p style='font-size:%1pt'><b>%2</b><br>%3</p>")
                                   .arg(points)
                                   .arg(head, marked.join("<br>"));
    };
    return block(tr("Do not mix this feed as it stands."), told.harmful, 13) +
           block(tr("Before you weigh: this falls out or must not meet."), told.falling(), 10) +
           block(tr("Not sure:"), told.unsure, 9);
  }

  /// What has to stand there before the first bag is opened; which gear, the cautions below say.
  QString ready() const {
    return tr(
        "<p>Ready: ☐ goggles ☐ gloves ☐ dust mask ☐ clean vessels with their marks ☐ labels ☐ level, no "
        "draught ☐ scale checked: known weight ________ shows ________</p>");
  }

  /// What a hand without a screen does when it goes wrong.
  QString wrong() const {
    return tr(
        "<p style='font-size:8pt'><b>If it goes wrong.</b> Too much: out again while dry; once wet, all the "
        "others and the water times what is in ÷ what was to be ____ = ____. Bag empty: the second lot "
        "beside "
        "the first. Wrong salt or vessel: stop, write it down, nothing more goes in before it is known what "
        "falls out.</p>");
  }

  std::vector<core::WeighStep> planFor(const std::vector<Mass>& weights,
                                       const std::vector<Mass>& chosen = {}) const {
    return core::weighPlan(m_shelf, weights, m_editor.document().scales, chosen);
  }

  /// The tanks' weights in whole steps, chosen together: what one gives too much another gives less.
  core::RoundedTanks roundedTanks() const {
    return core::roundedTanks(m_editor.document().given, m_editor.answer());
  }

  QString tank(std::size_t t) const {
    const auto& content = m_editor.answer().stock.tanks[t];
    if (content.items.empty()) return {};
    std::vector<Mass> weights(m_shelf.size());
    for (const auto& item : content.items)
      weights[item.product] = item.mass;
    const auto holds = QString::fromStdString(words::tankSideText(m_shelf, content));
    const auto side = [&] {
      switch (core::keepFrom(core::tankSide(m_shelf, content))) {
      case core::KeepFrom::SulfateOrPhosphate:
        return tr("%1: never with concentrated sulfate or phosphate").arg(holds);
      case core::KeepFrom::Calcium:
        return tr("%1: never with concentrated calcium").arg(holds);
      default:
        return holds;
      }
    }();
    const auto name = QString::fromStdString(content.tank.name);
    const bool told = name.compare(side, Qt::CaseInsensitive) == 0; // "Tank acid — acid"
    const auto strength = "1:" + localFigure(content.factor);
    return tr("<p style='margin-bottom:2px'><span style='font-size:12pt'><b>Tank %1</b></span> — %2, make up "
              "to <b>%3</b></p>")
               .arg(name.toHtmlEscaped(), told ? strength : side + " — " + strength,
                    m_units.stockText(content.tank.volume)) +
           weighingTableHtml(m_editor, m_units, planFor(weights, m_rounded.grams[t])) +
           preStockHtml(m_editor, m_units, t) +
           (content.tank.use == core::TankUse::Acid ? makingAcid(content) : making(content));
  }

  QString making(const core::TankContent& content) const {
    const auto& plan = m_editor.document().dosing.dissolving;
    const auto made = core::dissolve(m_shelf, content, plan);
    const auto hot =
        made.hot && *made.hot > core::Volume{}
            ? tr(", <b>%1 of it hot</b> (%2)").arg(m_units.stockText(*made.hot), degrees(plan.hotWater))
            : QString();
    return tr("<p style='margin-top:2px'>Begin with %1 of water%2; in the end ☐ make up to the mark of "
              "<b>%3</b>, ☐ stir, ☐ look at the floor: ________ ☐ label on.</p>")
        .arg(m_units.stockText(content.tank.volume * 0.5), hot, m_units.stockText(content.tank.volume));
  }

  QString degrees(core::Temperature t) const {
    return m_units.text(core::Temperature::fromCelsius(std::round(t.celsius())));
  }

  /// Said once for all tanks of salts.
  QString howTo() const {
    const auto& tanks = m_editor.answer().stock.tanks;
    const bool salts = std::any_of(tanks.begin(), tanks.end(), [](const core::TankContent& t) {
      return !t.items.empty() && t.tank.use != core::TankUse::Acid;
    });
    return salts ? tr("<p>One salt at a time, stirred until clear before the next; rinse the cup into the "
                      "tank. "
                      "At the mark stir, look for sediment, and label: contents, strength, date, dose.</p>")
                 : QString();
  }

  QString makingAcid(const core::TankContent& content) const {
    QStringList lines;
    for (const auto& acid : core::acidTanks(m_shelf, m_editor.answer().stock, m_editor.answer().water)) {
      if (content.tank.name != m_editor.answer().stock.tanks[acid.tank].tank.name) continue;
      for (const auto& line : words::acidTankCautions(m_shelf[acid.product], acid.warmsByKelvin))
        lines << QString::fromStdString(line).toHtmlEscaped();
    }
    return "<p style='margin-top:2px'>⚠ " + lines.join("<br>⚠ ") + "</p>";
  }

  QString apart() const {
    const auto& answer = m_editor.answer();
    QString out;
    for (const auto j : answer.stock.notPlaced) {
      const auto& p = m_shelf[j];
      const Mass mass = answer.solution.grams[j];
      const bool acid = p.composition.role == core::ProductRole::Acid;
      const auto amount =
          p.liquid && p.densityKgPerL
              ? m_units.stockText(core::Volume::fromMillilitres(mass.grams() / *p.densityKgPerL))
              : m_units.text(mass);
      const auto first =
          p.liquid && p.densityKgPerL
              ? m_units.stockText(core::Volume::fromMillilitres(0.7 * mass.grams() / *p.densityKgPerL))
              : m_units.text(mass * 0.7);
      out += tr("<p>☐ <b>%1, apart from the tanks:</b> %2 (%3) for %4 of feed. ")
                 .arg(name(j), amount, m_units.text(mass),
                      m_units.text(m_editor.document().given.request.volume));
      if (acid)
        out += tr("Acid into water. Give first 70 % of it (<b>%1</b>), stir, wait, read the pH: ______; "
                  "then the rest in small parts: ______. "
                  "Read again: ______")
                   .arg(first);
      out += "</p>";
    }
    return out;
  }

  QString dosing() const {
    const auto& answer = m_editor.answer();
    const auto makes = answer.stock.feedMade
                           ? tr("; the tanks make %1 of feed").arg(m_units.text(*answer.stock.feedMade))
                           : QString();
    const auto dose =
        haveOwnStrengths(answer.stock)
            ? doseOfTanks(answer.stock, statedRatioForm(m_editor), m_units)
            : tr("%1 of each tank (1:%2)")
                  .arg(statedDose(statedRatioForm(m_editor), m_editor.document().given.stock.factor, m_units),
                       localFigure(m_editor.document().given.stock.factor));
    return tr("<p><b>Dose</b> %1%2. <b>Expected:</b> water %3, feed <b>EC %4</b> at "
              "%5 (±5 %)%6. Read: EC ______ pH ______ "
              "after stirring and some minutes' wait; EC first, then pH.%7</p>")
        .arg(dose, makes, m_units.text(baseReading()), m_units.text(answer.feed.conductivity),
             m_units.text(core::Temperature::fromCelsius(25)), expectedPh(), trim());
  }

  QString expectedPh() const {
    const auto& feed = m_editor.answer().feed;
    if (!feed.ph) return {};
    return tr(", <b>pH about %1</b>%2")
        .arg(localNumber(*feed.ph, 1),
             feed.phInAir ? tr(" (%1 after standing in air)").arg(localNumber(*feed.phInAir, 1)) : QString());
  }

  /// What the finished feed still needs of the acid or base to reach the aim.
  QString trim() const {
    const auto trim = phTrimOf(m_editor);
    if (!trim) return {};
    return tr(" To pH %1: about <b>%2 of %3</b> more for %4, in parts: 70 % first, stir, read, then the "
              "rest.")
        .arg(localNumber(trim->targetPh, 1), trim->amount(1, m_units),
             QString::fromStdString(trim->product->name).toHtmlEscaped(),
             m_units.text(m_editor.document().given.request.volume));
  }

  core::Conductivity baseReading() const { return m_editor.answer().water.conductivity; }

  QString cautions() const {
    std::vector<words::HazardFacts> facts;
    const auto& grams = m_editor.answer().solution.grams;
    for (std::size_t j = 0; j < grams.size(); ++j) {
      if (grams[j] <= Mass{}) continue;
      facts.push_back(hazardFacts(m_editor.document(), m_editor.document().given.request.shelf[j]));
    }
    QString out = tr("<hr><p style='font-size:8pt'><b>Before the hand acts.</b> %1")
                      .arg(QString::fromStdString(words::generalCaution()).toHtmlEscaped());
    for (const auto& caution : words::cautionsFor(facts)) {
      QStringList names;
      for (const auto& n : caution.products)
        names << QString::fromStdString(n).toHtmlEscaped();
      out += QString("<br>⚠ <b>%1:</b> %2")
                 .arg(names.join(", "), QString::fromStdString(caution.text).toHtmlEscaped());
    }
    return out + "</p>";
  }

  const FormulaEditor& m_editor;
  const UnitsShown& m_units;
  const QString& m_date;
  const std::vector<core::ShelfProduct>& m_shelf;
  core::RoundedTanks m_rounded;
};

} // namespace

QString benchSheetHtml(const FormulaEditor& editor, const UnitsShown& units, const QString& date) {
  return Sheet(editor, units, date).html();
}

QString dateOnSheet(const QDate& day, std::optional<int> version) {
  const auto text = QLocale().toString(day, QLocale::LongFormat);
  return version.value_or(0) > 0 ? tr("%1 · version %2").arg(text).arg(*version) : text;
}

} // namespace butte::app
