#include "stations/tank/facts_panel.h"

#include "base/decimal.h"
#include "deed_words.h"
#include "fields/filling_combo.h"
#include "fields/number_field.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "stations/tank/fact_field.h"
#include "stations/tank/tank_words.h"
#include "tank/crop_uptake.h"
#include "units/convert.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QCheckBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLineEdit>

namespace butte::app {

using exchange::Amount;

namespace {
/// A formula's water, in the list of what fills a vessel.
QString waterOf(const std::string& formulaUid) {
  return "water/" + qtext(formulaUid);
}
/// A batch, in that list.
QString batchOf(const std::string& batchUid) {
  return "batch/" + qtext(batchUid);
}
constexpr int mostBatchesListed = 8;
constexpr double mostPlants = 1e8, mostOnStick = 1e6;
constexpr double mostVesselLitres = 1e9, mostVesselGround = 1e8, mostVesselCm = 1e5;
} // namespace

FactsPanel::FactsPanel(TankEdits& edits, UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_edits(edits), m_units(units), m_formula(new FillingCombo), m_crop(new QComboBox),
      m_climate(new QComboBox), m_shape(new QComboBox), m_waste(new QCheckBox(tr("drains to waste"))),
      m_rain(new QCheckBox(tr("open to rain"))), m_southern(new QCheckBox(tr("south of the equator"))) {
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setVerticalSpacing(5);
  addAmount(grid, 0, tr("Full mark"), "vesselFullMark", "volume", AmountField::Of::Volume);
  addAmount(grid, 1, tr("Low mark"), "vesselLowMark", "low", AmountField::Of::Volume);
  addAmount(grid, 2, tr("Drunk in a day"), "vesselDrunk", "drunk_per_day", AmountField::Of::Volume);
  addAmount(grid, 3, tr("Area of plants"), "vesselGround", "ground", AmountField::Of::Area);
  static_cast<FlowRow*>(grid->itemAtPosition(3, 1)->layout())
      ->addTogether({new PlainLabel(tr("or their number")),
                     digitsField(tr("how many plants there are"), "vesselPlants", "plants",
                                 &book::VesselFacts::plants, 0, mostPlants)});
  addAmount(grid, 4, tr("Usually warm"), "vesselWarm", "usual_temperature", AmountField::Of::Temperature);
  addChoices(grid, 5);
  addMeasures(grid, 10);
  addStick(grid, 12);
  addRule(grid, 13);
  grid->setColumnStretch(1, 1);
  grid->setRowStretch(16, 1);
  connect(&units, &UnitsShown::changed, this, &FactsPanel::showFacts);
}

void FactsPanel::addAmount(QGridLayout* grid, int row, const QString& words, const QString& object,
                           const char* key, AmountField::Of of) {
  const bool warm = of == AmountField::Of::Temperature;
  auto* field = new NumberField({.name = words,
                                 .unit = {},
                                 .least = 0,
                                 .most = of == AmountField::Of::Area ? mostVesselGround
                                         : warm                      ? 113
                                                                     : mostVesselLitres,
                                 .mayBeEmpty = true});
  field->setObjectName(object);
  field->setMaximumWidth(110);
  field->asked = [this, of] { return AskedUnit{unitOf(of), {}}; };
  field->onMessage = [this](const QString& said) { emit message(said); };
  field->onTyped = [this, of, key = std::string(key)](const QString& digits) {
    heard(m_edits.setAmount(m_uid, key,
                            digits.isEmpty() ? Amount{} : Amount{digits.toStdString(), unitOf(of)}));
  };
  auto* unit = new PlainLabel;
  auto* both = new FlowRow;
  both->addTogether({field, unit});
  grid->addWidget(new PlainLabel(words), row, 0);
  grid->addLayout(both, row, 1);
  m_amounts.push_back({field, unit, key, of});
}

void FactsPanel::addChoices(QGridLayout* grid, int row) {
  m_formula->setObjectName("vesselFormula");
  m_formula->setAccessibleName(tr("what fills it"));
  m_formula->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  m_formula->fill = [this] {
    m_formula->clear();
    m_formula->addItem(tr("—"), QString());
    for (const auto& head : m_edits.formulas()) {
      m_formula->addItem(qtext(head.name), qtext(head.ref.uid));
      m_formula->addItem(tr("only the water of %1").arg(qtext(head.name)), waterOf(head.ref.uid));
    }
    for (const auto& batch : m_edits.lastBatches(mostBatchesListed))
      m_formula->addItem(batchName(batch.formulaName, batch.at), batchOf(batch.uid));
    m_formula->setCurrentIndex(std::max(0, m_formula->findData(filledWith())));
  };
  connect(m_formula, &QComboBox::activated, this, [this] {
    auto uid = m_formula->currentData().toString();
    if (uid.startsWith(batchOf({})))
      return heard(m_edits.fillWithBatch(m_uid, uid.mid(batchOf({}).size()).toStdString()));
    const bool water = uid.startsWith(waterOf({}));
    if (water) uid.remove(0, waterOf({}).size());
    heard(m_edits.setFilling(m_uid, uid.toStdString(), water));
  });
  m_crop->setObjectName("vesselCrop");
  m_crop->setAccessibleName(tr("what grows in it"));
  m_crop->setEditable(true);
  m_crop->addItem(QString());
  for (const auto& crop : core::cropsWithUptake())
    m_crop->addItem(qtext(crop));
  m_crop->lineEdit()->setMaxLength(200);
  const auto keepCrop = [this] { heard(m_edits.setText(m_uid, "crop", m_crop->currentText())); };
  connect(m_crop, &QComboBox::activated, this, keepCrop);
  connect(m_crop->lineEdit(), &QLineEdit::editingFinished, this, keepCrop);
  m_climate->setObjectName("vesselClimate");
  m_climate->setAccessibleName(tr("how it grows"));
  m_climate->setToolTip(tr("Where it is warm and bright plants drink more for the same growth: each volume "
                           "that they drink takes less along."));
  m_climate->addItem(tr("cool house"), QString("cool"));
  m_climate->addItem(tr("warm and bright"), QString("warm"));
  connect(m_climate, &QComboBox::activated, this,
          [this] { heard(m_edits.setText(m_uid, "climate", m_climate->currentData().toString())); });
  m_waste->setObjectName("vesselWaste");
  m_rain->setObjectName("vesselRain");
  m_southern->setObjectName("vesselSouthern");
  m_southern->setToolTip(tr("Its summer begins in December: what a crop drinks goes by the season."));
  connect(m_southern, &QCheckBox::clicked, this,
          [this](bool on) { heard(m_edits.setFlag(m_uid, "southern", on)); });
  connect(m_waste, &QCheckBox::clicked, this,
          [this](bool on) { heard(m_edits.setFlag(m_uid, "drains_to_waste", on)); });
  connect(m_rain, &QCheckBox::clicked, this,
          [this](bool on) { heard(m_edits.setFlag(m_uid, "open_to_rain", on)); });
  grid->addWidget(new PlainLabel(tr("Filled with")), row, 0, 1, 2);
  grid->addWidget(m_formula, row + 1, 0, 1, 2);
  grid->addWidget(new PlainLabel(tr("Crop")), row + 2, 0);
  grid->addWidget(m_crop, row + 2, 1);
  grid->addWidget(new PlainLabel(tr("Grown in")), row + 3, 0);
  grid->addWidget(m_climate, row + 3, 1);
  auto* boxes = new FlowRow;
  boxes->addWidget(m_waste);
  boxes->addWidget(m_rain);
  boxes->addWidget(m_southern);
  grid->addLayout(boxes, row + 4, 1);
}

void FactsPanel::addMeasures(QGridLayout* grid, int row) {
  m_shape->setObjectName("vesselShape");
  m_shape->setAccessibleName(tr("its shape, for levels in cm"));
  m_shape->addItem(tr("no measures"), QString());
  m_shape->addItem(tr("round: across"), QString("round"));
  m_shape->addItem(tr("oblong: across, along"), QString("rectangular"));
  m_shape->addItem(tr("pail: bottom, top, height"), QString("tapered"));
  m_shape->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  connect(m_shape, &QComboBox::activated, this, &FactsPanel::keepMeasures);
  auto* fields = new QHBoxLayout;
  const auto cm = [&](const QString& name, const QString& object) {
    auto* field =
        new NumberField({.name = name, .unit = "cm", .least = 0, .most = mostVesselCm, .mayBeEmpty = true});
    field->setObjectName(object);
    field->setMaximumWidth(52);
    field->onMessage = [this](const QString& said) { emit message(said); };
    field->onTyped = [this](const QString&) { keepMeasures(); };
    fields->addWidget(field);
    return field;
  };
  m_across = cm(tr("inner width across"), "vesselAcross");
  m_along = cm(tr("inner length along, or width at the top"), "vesselAlong");
  m_high = cm(tr("inner height"), "vesselHigh");
  fields->addWidget(new PlainLabel(tr("cm")));
  fields->addStretch();
  grid->addWidget(new PlainLabel(tr("Shape, in cm")), row, 0);
  grid->addWidget(m_shape, row, 1);
  grid->addLayout(fields, row + 1, 1);
}

/// A figure without a unit; kept as it was typed.
NumberField* FactsPanel::digitsField(const QString& name, const QString& object, const char* key,
                                     std::string book::VesselFacts::*of, double least, double most) {
  auto* field = factField(
      {.name = name, .unit = {}, .least = least, .most = most}, object,
      [this, key = std::string(key)](const QString& typed) { heard(m_edits.setText(m_uid, key, typed)); },
      [this](const QString& said) { emit message(said); });
  m_digits.push_back({field, of});
  return field;
}

/// A float stick by what it shows at either mark; evenly between.
void FactsPanel::addStick(QGridLayout* grid, int row) {
  using book::VesselFacts;
  auto* both = new FlowRow;
  both->addTogether({new PlainLabel(tr("at the full mark")),
                     digitsField(tr("what the float stick shows at the full mark"), "vesselStickFull",
                                 "stick_full", &VesselFacts::stickFull, -mostOnStick, mostOnStick)});
  both->addTogether({new PlainLabel(tr("at the low mark")),
                     digitsField(tr("what the float stick shows at the low mark, or empty"), "vesselStickLow",
                                 "stick_low", &VesselFacts::stickLow, -mostOnStick, mostOnStick)});
  grid->addWidget(new PlainLabel(tr("Float stick")), row, 0);
  grid->addLayout(both, row, 1);
}

/// The growers' rule, its figures for the hand to change.
void FactsPanel::addRule(QGridLayout* grid, int row) {
  const core::GrowersRule usual;
  const auto digits = [&](const QString& name, const QString& object, const char* key,
                          std::string book::VesselFacts::*of, double most, double usually) {
    auto* field = digitsField(name, object, key, of, 0, most);
    field->setPlaceholderText(localFigure(usually));
    return field;
  };
  addAmount(grid, row, tr("Rule, EC over"), "ruleHighEc", "rule_high_ec", AmountField::Of::Conductivity);
  addAmount(grid, row + 1, tr("Rule, EC under"), "ruleLowEc", "rule_low_ec", AmountField::Of::Conductivity);
  using book::VesselFacts;
  constexpr double percent = 100;
  const auto beside = [&](int at, NumberField* field) {
    static_cast<FlowRow*>(grid->itemAtPosition(at, 1)->layout())
        ->addTogether({new PlainLabel(tr("refill at")), field, new PlainLabel(tr("%"))});
  };
  beside(row, digits(tr("refill above it, in % of its strength"), "ruleHighPercent", "rule_high_percent",
                     &VesselFacts::ruleHighPercent, 1000, percent * usual.highFactor));
  beside(row + 1, digits(tr("refill below it, in % of its strength"), "ruleLowPercent", "rule_low_percent",
                         &VesselFacts::ruleLowPercent, 1000, percent * usual.lowFactor));
  auto* acids = new FlowRow;
  acids->addTogether({digits(tr("pH above which the refill wants ammonium or acid"), "ruleHighPh",
                             "rule_high_ph", &VesselFacts::ruleHighPh, 14, usual.highPh),
                      new PlainLabel(tr("more acid"))});
  acids->addTogether({new PlainLabel(tr("below")),
                      digits(tr("pH below which the refill wants none"), "ruleLowPh", "rule_low_ph",
                             &VesselFacts::ruleLowPh, 14, usual.lowPh),
                      new PlainLabel(tr("none"))});
  grid->addWidget(new PlainLabel(tr("Rule, pH over")), row + 2, 0);
  grid->addLayout(acids, row + 2, 1);
  for (auto& one : m_amounts)
    if (one.of == AmountField::Of::Conductivity)
      one.field->setPlaceholderText(
          m_units.digits(std::string_view(one.key) == "rule_high_ec" ? usual.highEc : usual.lowEc));
}

/// What the list of fillings holds for it.
QString FactsPanel::filledWith() const {
  if (!m_facts.batchUid.empty()) return batchOf(m_facts.batchUid);
  return m_facts.filledWithWater ? waterOf(m_facts.formulaUid) : qtext(m_facts.formulaUid);
}

std::string FactsPanel::unitOf(AmountField::Of of) const {
  if (of == AmountField::Of::Volume) return m_units.measures().volumeUnit();
  if (of == AmountField::Of::Temperature) return m_units.measures().temperatureUnit();
  if (of == AmountField::Of::Conductivity) return m_units.measures().conductivityUnit();
  return m_units.volume() == VolumeShown::UsGallons ? "ft2" : "m2";
}

QString FactsPanel::unitNameOf(AmountField::Of of) const {
  if (of == AmountField::Of::Volume) return m_units.volumeUnitName();
  if (of == AmountField::Of::Temperature) return m_units.temperatureUnitName();
  if (of == AmountField::Of::Conductivity) return m_units.conductivityUnitName();
  return m_units.volume() == VolumeShown::UsGallons ? tr("ft²") : tr("m²");
}

QString FactsPanel::digitsOf(const Amount& amount, AmountField::Of of) const {
  if (amount.isEmpty()) return {};
  const auto unit = unitOf(of);
  if (amount.unit == unit) return qtext(amount.digits);
  const auto there = core::convert(amount.value(), amount.unit, unit);
  return there ? QString::number(*there, 'g', 6) : qtext(amount.digits);
}

void FactsPanel::heard(const book::Trouble& trouble) {
  if (trouble) emit message(problemWords(*trouble));
}

void FactsPanel::show(const std::string& uid, const book::VesselFacts& facts) {
  m_uid = uid;
  m_facts = facts;
  showFacts();
}

void FactsPanel::showFormula() {
  const auto formula = m_edits.formula(m_facts.formulaUid, 0);
  m_formula->clear();
  const auto name = formula ? qtext(formula->name) : tr("—");
  const auto batch = m_edits.batch(m_facts.batchUid);
  m_formula->addItem(batch                     ? batchName(batch->formulaName, batch->at)
                     : m_facts.filledWithWater ? tr("only the water of %1").arg(name)
                                               : name,
                     filledWith());
}

void FactsPanel::showFacts() {
  for (const auto& one : m_amounts) {
    const auto& amount = std::string_view(one.key) == "volume"          ? m_facts.full
                         : std::string_view(one.key) == "low"           ? m_facts.low
                         : std::string_view(one.key) == "drunk_per_day" ? m_facts.drunk
                         : std::string_view(one.key) == "ground"        ? m_facts.ground
                         : std::string_view(one.key) == "rule_high_ec"  ? m_facts.ruleHighEc
                         : std::string_view(one.key) == "rule_low_ec"   ? m_facts.ruleLowEc
                                                                        : m_facts.usualTemperature;
    one.field->show(digitsOf(amount, one.of));
    one.unit->setText(unitNameOf(one.of));
  }
  for (const auto& one : m_digits)
    one.field->show(qtext(m_facts.*one.digits));
  showFormula();
  if (!m_crop->lineEdit()->hasFocus()) m_crop->setEditText(qtext(m_facts.crop));
  m_climate->setCurrentIndex(m_facts.climate == "warm" ? 1 : 0);
  m_waste->setChecked(m_facts.drainsToWaste);
  m_rain->setChecked(m_facts.openToRain);
  m_southern->setChecked(m_facts.southern);
  const auto& measures = m_facts.measures;
  m_shape->setCurrentIndex(
      measures ? std::max(0, m_shape->findData(qtext(std::string(core::vesselShapeKey(measures->shape)))))
               : 0);
  const auto cm = [](double value) { return value > 0 ? qtext(core::decimalText(value)) : QString(); };
  m_across->show(measures ? cm(measures->acrossCm) : QString());
  m_along->show(measures ? cm(measures->alongCm) : QString());
  m_high->show(measures ? cm(measures->heightCm) : QString());
  for (auto* field : {m_across, m_along, m_high})
    field->setEnabled(m_shape->currentIndex() > 0);
}

void FactsPanel::keepMeasures() {
  const auto shape = core::vesselShapeFromKey(m_shape->currentData().toString().toStdString());
  if (!shape) return heard(m_edits.setMeasures(m_uid, std::nullopt));
  const auto cm = [](const NumberField* field) {
    return core::parseDecimal(field->digits().toStdString()).value_or(0);
  };
  heard(m_edits.setMeasures(m_uid, core::Vessel{*shape, cm(m_across), cm(m_along), cm(m_high)}));
}

} // namespace butte::app
