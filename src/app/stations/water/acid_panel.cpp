#include "stations/water/acid_panel.h"

#include "document/formula_editor.h"
#include "edits/acid_edits.h"
#include "fields/number_field.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "product/catalogue.h"
#include "refresh/while_seen.h"
#include "services/units_shown.h"
#include "stations/water/acid_curve.h"
#include "stations/water/acid_table.h"
#include "stations/water/titration_table.h"
#include "wording/tr.h"
#include "wording/water_words.h"
#include "words.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>
#include <algorithm>

namespace butte::app {
namespace {
constexpr int shortestBottle = 14; // letters

bool isDosedByHand(const core::CatalogueProduct& product) {
  return product.composition.role == core::ProductRole::Acid ||
         product.composition.role == core::ProductRole::Base;
}

/// What the catalogue says of the bottle: the whole of it, behind the short line.
QString cautionsOf(const core::AcidPlan& plan) {
  const auto* entry = plan.product ? core::findInCatalogue(plan.product->id) : nullptr;
  return entry ? QString::fromStdString(entry->cautions) : QString();
}

} // namespace

AcidPanel::AcidPanel(FormulaEditor& editor, UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_units(units) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 2, 0);
  column->setSpacing(4);
  auto* title = new PlainLabel(tr("Acid: what this water needs"));
  title->setFont(faceOf(15, true));
  column->addWidget(title);
  column->addWidget(makeChoice());
  m_dose = new WrappedLabel;
  m_dose->setObjectName("acidDose");
  m_dose->setFont(faceOf(15, true));
  column->addWidget(m_dose);
  m_caution = new WrappedLabel;
  m_caution->setObjectName("acidCaution");
  m_caution->setFont(faceOf(12));
  column->addWidget(m_caution);
  m_consequences = new WrappedLabel;
  m_consequences->setObjectName("acidConsequences");
  m_consequences->setTextFormat(Qt::RichText);
  m_consequences->setFont(faceOf(12));
  column->addWidget(m_consequences);
  column->addWidget(new AcidCurve(editor, units), 1);
  auto* table = new TitrationTable(editor, units);
  connect(table, &TitrationTable::message, this, &AcidPanel::message);
  column->addWidget(table);
  auto* acids = new AcidTable(editor, units);
  connect(acids, &AcidTable::message, this, &AcidPanel::message);
  column->addWidget(acids);
  auto* fresh = new WhileSeen(this, [this] { refresh(); });
  connect(&editor, &FormulaEditor::changed, fresh, &WhileSeen::outdate);
  connect(&units, &UnitsShown::changed, fresh, &WhileSeen::outdate);
  refresh();
}

QWidget* AcidPanel::makeChoice() {
  auto* box = new QWidget;
  auto* row = new QHBoxLayout(box);
  row->setContentsMargins(0, 0, 0, 0);
  m_product = new QComboBox;
  m_product->setObjectName("acidProduct");
  m_product->setAccessibleName(tr("acid or base"));
  for (const auto& product : core::catalogue()) {
    if (isDosedByHand(product))
      m_product->addItem(QString::fromStdString(product.shortName), QString::fromStdString(product.id));
  }
  m_product->setMinimumContentsLength(shortestBottle);
  m_product->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  connect(m_product, &QComboBox::activated, this, &AcidPanel::choose);
  row->addWidget(m_product, 1);
  row->addWidget(new PlainLabel(tr("to pH")));
  m_target = new NumberField({tr("pH to reach"), "", 2, 12});
  m_target->setObjectName("acidTarget");
  m_target->setFixedWidth(52);
  m_target->onTyped = [this](const QString& digits) {
    AcidEdits(m_editor).setAim(digits, m_product->currentData().toString().toStdString());
  };
  m_target->onMessage = [this](const QString& words) { emit message(words); };
  row->addWidget(m_target);
  return box;
}

void AcidPanel::choose(int index) {
  AcidEdits(m_editor).setBottle(m_product->itemData(index).toString().toStdString(),
                                m_product->itemText(index));
}

QString AcidPanel::doseText() const {
  const auto& given = m_editor.document().given;
  const auto& answer = m_editor.answer();
  if (!answer.water.ph) return tr("Not known: type the water's alkalinity");
  const auto& product = *given.acid.product;
  if (!answer.acid.forWater) {
    const bool lower = given.acid.targetPh < *answer.water.ph;
    const bool acid = product.composition.role == core::ProductRole::Acid;
    return lower == acid ? tr("It can't bring this water to pH %1").arg(localNumber(given.acid.targetPh, 1))
           : acid        ? tr("No acid: the water stands at pH %1").arg(localNumber(*answer.water.ph, 1))
                         : tr("No base: the water stands at pH %1").arg(localNumber(*answer.water.ph, 1));
  }
  const double grams = answer.acid.forWater->gramsPerLitre;
  const auto batch = given.request.volume;
  if (product.densityKgPerL) {
    const double millilitres = grams / *product.densityKgPerL;
    return tr("%1 · %2 (%3) in %4")
        .arg(m_units.dose(millilitres),
             m_units.stockText(core::Volume::fromMillilitres(millilitres * batch.litres())),
             m_units.text(core::Mass::fromGrams(grams * batch.litres())), m_units.text(batch));
  }
  return tr("%1 · %2 in %3")
      .arg(m_units.text(core::Concentration::fromGramsPerLitre(grams)),
           m_units.text(core::Mass::fromGrams(grams * batch.litres())), m_units.text(batch));
}

QString AcidPanel::consequences() const {
  const auto& given = m_editor.document().given;
  const auto& answer = m_editor.answer();
  const auto& dose = answer.acid.forWater;
  QStringList parts;
  if (dose) {
    const double taken = 1000 * dose->equivalentsPerLitre;
    parts << (taken >= 0
                  ? tr("takes %1 meq/L, leaves %2")
                        .arg(localNumber(taken, 2), localNumber(1000 * dose->alkalinityLeftEqPerLitre, 2))
                  : tr("gives %1 meq/L").arg(localNumber(-taken, 2)));
    QStringList adds, tooMuch;
    for (const auto nutrient : core::allNutrients) {
      if (nutrient == core::Nutrient::N) continue;
      const double mg =
          given.acid.product->composition.massFraction.of(nutrient) * dose->gramsPerLitre * 1000;
      const auto& rows = given.request.rows;
      const auto row = std::find_if(rows.begin(), rows.end(),
                                    [nutrient](const auto& r) { return r.nutrient == nutrient; });
      if (row != rows.end() && mg > row->bandHigh())
        tooMuch << tr("<b>▲ its %1 alone is more than the target's %2 mg/L</b>")
                       .arg(QString::fromStdString(words::nutrientName(nutrient)),
                            localFigure(row->milligramsPerLitre));
      if (mg >= 0.05)
        adds << QString("%1 mg/L %2")
                    .arg(localFigure(mg), QString::fromStdString(words::nutrientSymbol(nutrient)));
    }
    if (!adds.isEmpty()) parts << tr("brings %1").arg(adds.join(", "));
    parts << tooMuch;
    if (given.acid.product->densityKgPerL && dose->gramsPerLitre > 0)
      parts << tr("near the aim 0.1 pH takes %1")
                   .arg(m_units.dose(0.1 * dose->gramsPerLitrePerPh / *given.acid.product->densityKgPerL));
  }
  if (answer.water.ph && answer.water.phInAir)
    parts << tr("water now pH %1, after standing in air %2")
                 .arg(localNumber(*answer.water.ph, 1), localNumber(*answer.water.phInAir, 1));
  if (const auto inFormula = acidInFormula(); inFormula && answer.feed.ph)
    parts << tr("the formula's own acid is %1: feed at pH %2")
                 .arg(m_units.text(*inFormula), localNumber(*answer.feed.ph, 1));
  if (isGuessed(answer.waters.water))
    parts << tr("<b>▲ dosed against a guess: measure the alkalinity, or count drops below, first</b>");
  if (answer.water.waterPhContradicts) parts << tr("<b>pH and alkalinity can't both be right</b>");
  QString text = parts.join("; ");
  if (!text.isEmpty()) text[0] = text[0].toUpper();
  return text.isEmpty() ? text : text + ".";
}

/// What the formula itself doses to leave its alkalinity; nothing where it doses none.
std::optional<core::Mass> AcidPanel::acidInFormula() const {
  const auto& shelf = m_editor.document().given.request.shelf;
  const auto& grams = m_editor.answer().solution.grams;
  core::Mass sum;
  for (std::size_t j = 0; j < grams.size(); ++j) {
    if (shelf[j].composition.role == core::ProductRole::Acid) sum = sum + grams[j];
  }
  return sum > core::Mass{} ? std::optional(sum) : std::nullopt;
}

QString AcidPanel::caution() const {
  const auto& product = m_editor.document().given.acid.product;
  if (!product) return {};
  QString text =
      product->composition.role == core::ProductRole::Acid
          ? tr("⚠ Acid into water; goggles, gloves; never near hypochlorite. Label and data sheet first.")
          : tr("⚠ Base into water: it burns and heats up; goggles, gloves. Label and data sheet first.");
  return text;
}

void AcidPanel::refresh() {
  const auto& plan = m_editor.document().given.acid;
  if (plan.product) m_product->setCurrentIndex(m_product->findData(QString::fromStdString(plan.product->id)));
  const auto aim = AcidEdits(m_editor).aim();
  m_target->show(aim.empty() ? localNumber(plan.targetPh, 1) : QString::fromStdString(aim));
  m_dose->setText(doseText());
  m_consequences->setText(consequences());
  m_caution->setText(caution());
  m_caution->setToolTip(cautionsOf(plan));
}

} // namespace butte::app
