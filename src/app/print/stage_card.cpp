#include "print/stage_card.h"

#include "bench/weigh_plan.h"
#include "cautions.h"
#include "document/formula_editor.h"
#include "edits/stage_edits.h"
#include "edits/stock_edits.h"
#include "formula_words.h"
#include "services/units_shown.h"
#include "stock/tank_rounding.h"
#include "wording/direct_words.h"
#include "wording/dose_words.h"
#include "wording/tr.h"

#include <QStringList>
#include <algorithm>
#include <map>

namespace butte::app {

namespace {

using core::Mass;

class Card {
public:
  Card(FormulaEditor& editor, const UnitsShown& units)
      : m_units(units), m_form(statedRatioForm(editor)), m_stages(StageEdits(editor).workedOut()) {
    for (const auto& product : editor.document().products)
      m_names.emplace_back(product.id, QString::fromStdString(product.name).toHtmlEscaped());
  }

  QString html(const FormulaEditor& editor, const QString& date) const {
    if (m_stages.size() < 2) return {};
    auto out =
        tr("<table width='100%'><tr><td><span style='font-size:16pt'><b>%1</b></span><br>water: %2</td>"
           "<td align='right'>%3</td></tr></table><hr>")
            .arg(QString::fromStdString(editor.document().name).toHtmlEscaped(),
                 QString::fromStdString(editor.document().waterName).toHtmlEscaped(), date.toHtmlEscaped()) +
        "<table width='100%' cellspacing='0' cellpadding='2'>" + heads() + warnings() + weights() + feed() +
        elements();
    return out + "</table><p style='font-size:8pt'>" +
           QString::fromStdString(words::generalCaution()).toHtmlEscaped() + "</p>";
  }

private:
  /// A row: what it is, then each stage's.
  template <typename Of> QString row(const QString& name, Of of, bool heavy = false) const {
    QString out = "<tr><td>" + name + "</td>";
    for (const auto& stage : m_stages)
      out += QString(heavy ? "<td align='right'><b>%1</b></td>" : "<td align='right'>%1</td>").arg(of(stage));
    return out + "</tr>";
  }

  QString heads() const {
    return row(
        {},
        [](const StageWorked& s) {
          return "<span style='font-size:13pt'>" + s.name.toHtmlEscaped() + "</span>";
        },
        true);
  }

  QString part(const QString& title) const {
    return QString("<tr><td colspan='%1'><br><b>%2</b></td></tr>").arg(m_stages.size() + 1).arg(title);
  }

  /// What each place of the mixing takes of a product, by its id.
  using Amounts = std::map<std::string, QString>;

  Amounts amounts(const StageWorked& stage, const std::vector<core::WeighStep>& plan) const {
    Amounts out;
    const auto& shelf = stage.document.given.request.shelf;
    for (const auto& step : plan)
      out[shelf[step.product].id] = directAmount(shelf[step.product], step, stage.document.scales, m_units);
    return out;
  }

  /// By the name of the tank; "" is the one vessel, or what goes in apart.
  std::map<std::string, Amounts> amountsOf(const StageWorked& stage) const {
    const auto& given = stage.document.given;
    std::map<std::string, Amounts> out;
    if (const auto& direct = stage.answer.direct) {
      if (*direct)
        out[""] = amounts(stage, core::weighPlan(given.request.shelf, (*direct)->grams, stage.document.scales,
                                                 {}, core::MixingInto::Vessel));
      return out;
    }
    const auto rounded = core::roundedTanks(given, stage.answer);
    const auto& tanks = stage.answer.stock.tanks;
    for (std::size_t t = 0; t < tanks.size(); ++t) {
      std::vector<Mass> weights(given.request.shelf.size());
      for (const auto& item : tanks[t].items)
        weights[item.product] = item.mass;
      out[tanks[t].tank.name] = amounts(
          stage, core::weighPlan(given.request.shelf, weights, stage.document.scales, rounded.grams[t]));
    }
    std::vector<Mass> apart(given.request.shelf.size());
    for (const auto j : stage.answer.stock.notPlaced)
      apart[j] = stage.answer.solution.grams[j];
    out[""] = amounts(stage, core::weighPlan(given.request.shelf, apart, stage.document.scales));
    return out;
  }

  QString weights() const {
    std::vector<std::map<std::string, Amounts>> all;
    for (const auto& stage : m_stages)
      all.push_back(amountsOf(stage));
    QString out;
    const auto& first = m_stages.front();
    const bool direct = first.answer.direct.has_value();
    const auto volume = m_units.text(first.document.given.request.volume);
    for (const auto& content : first.answer.stock.tanks)
      if (!direct)
        out += place(all, content.tank.name,
                     tr("Tank %1, %2")
                         .arg(QString::fromStdString(content.tank.name).toHtmlEscaped(),
                              m_units.stockText(content.tank.volume)));
    return out + place(all, "",
                       direct ? tr("Straight into %1").arg(volume) : tr("Apart, for %1 of feed").arg(volume));
  }

  QString place(const std::vector<std::map<std::string, Amounts>>& all, const std::string& tank,
                const QString& title) const {
    QString rows;
    for (const auto& [id, name] : m_names) {
      QStringList cells;
      bool any = false;
      for (const auto& stage : all) {
        const auto amounts = stage.find(tank);
        const auto found = amounts == stage.end() ? Amounts::const_iterator{} : amounts->second.find(id);
        const bool there = amounts != stage.end() && found != amounts->second.end();
        any = any || there;
        cells << (there ? found->second : QString("–"));
      }
      if (any)
        rows += "<tr><td>&nbsp;&nbsp;" + name + "</td><td align='right'><b>" +
                cells.join("</b></td><td align='right'><b>") + "</b></td></tr>";
    }
    return rows.isEmpty() ? QString() : part(title) + rows;
  }

  /// What must not be mixed says so over all its figures; so does what the independent check denies.
  QString warnings() const {
    const bool any = std::any_of(m_stages.begin(), m_stages.end(), [](const StageWorked& s) {
      return !s.answer.harmful.empty() || !s.answer.checked;
    });
    if (!any) return {};
    return row(tr("<b>⚠ Do not mix as it stands</b>"), [](const StageWorked& s) {
      QStringList why;
      if (!s.answer.checked) why << tr("not confirmed by the check");
      for (const auto& level : s.answer.harmful)
        why << tr("%1 harmful").arg(QString::fromStdString(words::nutrientSymbol(level.nutrient)));
      return why.isEmpty() ? QString("–") : "<b>⚠ " + why.join(", ") + "</b>";
    });
  }

  QString feed() const {
    auto out = part(tr("The feed"));
    if (!m_stages.front().answer.direct)
      out += row(tr("&nbsp;&nbsp;dose of each tank"), [&](const StageWorked& s) {
        return tr("%1 (1:%2)")
            .arg(statedDose(m_form, s.document.given.stock.factor, m_units),
                 localFigure(s.document.given.stock.factor));
      });
    out += row(
        tr("&nbsp;&nbsp;EC to expect (±5 %)"),
        [&](const StageWorked& s) { return m_units.text(s.answer.feed.conductivity); }, true);
    return out + row("&nbsp;&nbsp;pH", [](const StageWorked& s) {
             return s.answer.feed.ph ? localNumber(*s.answer.feed.ph, 1) : QString("–");
           });
  }

  QString elements() const {
    auto out = part(tr("In it, mg/L"));
    for (const auto n : core::allNutrients) {
      bool any = false;
      for (const auto& stage : m_stages)
        any = any || stage.answer.feed.milligramsPerLitre.of(n) > 0.005;
      if (any)
        out += row("&nbsp;&nbsp;" + QString::fromStdString(words::nutrientSymbol(n)),
                   [n](const StageWorked& s) { return localFigure(s.answer.feed.milligramsPerLitre.of(n)); });
    }
    return out;
  }

  const UnitsShown& m_units;
  core::RatioForm m_form; ///< in which the hand states its doses: one set of tanks for all stages
  std::vector<StageWorked> m_stages;
  std::vector<std::pair<std::string, QString>> m_names; ///< by id, in the shelf's order
};

} // namespace

QString stageCardHtml(FormulaEditor& editor, const UnitsShown& units, const QString& date) {
  return Card(editor, units).html(editor, date);
}

} // namespace butte::app
