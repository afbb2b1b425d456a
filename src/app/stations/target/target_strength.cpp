#include "stations/target/target_strength.h"

#include "base/decimal.h"
#include "document/formula_editor.h"
#include "edits/target_edits.h"
#include "fields/number_field.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "refresh/while_seen.h"
#include "services/units_shown.h"
#include "target/scale_target.h"
#include "wording/tr.h"
#include "words.h"

#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>
#include <cmath>

namespace butte::app {

using core::Nutrient;

namespace {

/// Four figures: finer than anybody weighs.
std::string typedAs(double value) {
  return core::decimalText(QString::number(value, 'g', 4).toDouble());
}

} // namespace

TargetStrength::TargetStrength(FormulaEditor& editor, UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_units(units), m_now(new PlainLabel), m_wantedUnit(new PlainLabel),
      m_wanted(new NumberField({tr("EC wanted"), "", 0.05, 14000, true})),
      m_total(new NumberField({tr("nitrogen in all"), "mg/L", 0, 2000, true})),
      m_share(new NumberField({tr("ammonium's share of nitrogen"), "%", 0, 100, true})),
      m_traces(new QCheckBox(tr("traces too"))), m_season(new QComboBox) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  m_now->setObjectName("targetEc");
  m_now->setFont(faceOf(14, true));
  column->addWidget(m_now);
  auto* row = new FlowRow(nullptr, 5);
  m_wanted->setObjectName("targetEcWanted");
  m_wanted->setFixedWidth(56);
  m_traces->setObjectName("scaleTraces");
  m_traces->setToolTip(
      tr("Some growers keep the traces as they are when the feed is made weaker or stronger, some scale "
         "them with it: both are common practice."));
  auto* scale = new QPushButton(tr("Scale"));
  scale->setObjectName("scaleTarget");
  const auto go = [this] {
    const auto typed = core::parseDecimal(m_wanted->digits().toStdString());
    if (!typed || m_wanted->isWrong())
      return emit message(
          tr("Type the EC the target should have, in %1.").arg(m_units.conductivityUnitName()));
    const double ec = m_units.measures().conductivityOf(*typed).milliSiemensPerCm();
    scaleTo(ec, {core::DeedCode::TargetScaled, {core::decimalText(ec)}});
  };
  connect(scale, &QPushButton::clicked, this, go);
  connect(m_wanted, &QLineEdit::returnPressed, this, go);
  row->addTogether({new PlainLabel(tr("to EC")), m_wanted, m_wantedUnit});
  m_wanted->asked = [this] { return AskedUnit{m_units.conductivityUnit().toStdString(), {}}; };
  row->addWidget(m_traces);
  row->addWidget(scale);
  column->addLayout(row);
  m_season->setObjectName("seasonRule");
  m_season->setAccessibleName(tr("the crop's usual strength by season"));
  m_season->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
  connect(m_season, &QComboBox::activated, this, [this](int index) {
    const auto rules = core::seasonRules(m_seasonCrop.toStdString());
    m_season->setCurrentIndex(0);
    if (index < 1 || index > static_cast<int>(rules.size())) return;
    const auto& rule = rules[static_cast<std::size_t>(index - 1)];
    scaleTo(rule.milliSiemensPerCm, {core::DeedCode::TargetOfSeason, {rule.name}});
    emit message(
        tr("%1: EC %2. %3 (%4)")
            .arg(QString::fromStdString(rule.name), rangeText(*rule.range->ecLow, *rule.range->ecHigh),
                 QString::fromStdString(rule.range->note), QString::fromStdString(rule.range->source)));
  });
  column->addWidget(m_season);
  column->addWidget(makeNitrogen());
  auto* fresh = new WhileSeen(this, [this] { refresh(); });
  connect(&editor, &FormulaEditor::changed, fresh, &WhileSeen::outdate);
  connect(&units, &UnitsShown::changed, fresh, &WhileSeen::outdate);
  refresh();
}

QWidget* TargetStrength::makeNitrogen() {
  auto* box = new QWidget;
  auto* row = new FlowRow(box, 5);
  m_total->setObjectName("nitrogenTotal");
  m_total->setFixedWidth(56);
  m_share->setObjectName("ammoniumShare");
  m_share->setFixedWidth(48);
  for (auto* field : {m_total, m_share}) {
    field->onTyped = [this](const QString&) { nitrogenTyped(); };
    field->onMessage = [this](const QString& words) { emit message(words); };
  }
  row->addTogether({new PlainLabel(tr("N in all")), m_total, new PlainLabel(tr("mg/L,"))});
  row->addTogether({m_share, new PlainLabel(tr("% as NH₄"))});
  return box;
}

void TargetStrength::refresh() {
  m_wantedUnit->setText(m_units.conductivityUnitName());
  const auto& request = m_editor.document().given.request;
  const auto ec = core::conductivityOfTarget(request.rows, request.alkalinityLeftMeqPerL.value_or(0));
  m_now->setText(ec && !request.rows.empty()
                     ? tr("Strength %1").arg(m_units.text(core::Conductivity::fromMilliSiemensPerCm(*ec)))
                     : tr("Strength not known"));
  fillSeasons();
  refreshNitrogen();
}

void TargetStrength::refreshNitrogen() {
  double nitrate = 0, ammonium = 0, all = 0;
  for (const auto& row : m_editor.document().given.request.rows) {
    if (row.nutrient == Nutrient::NNitrate) nitrate = row.milligramsPerLitre;
    if (row.nutrient == Nutrient::NAmmonium) ammonium = row.milligramsPerLitre;
    if (row.nutrient == Nutrient::N) all = row.milligramsPerLitre;
  }
  const double total = all > 0 ? all : nitrate + ammonium;
  if (!m_total->hasFocus()) m_total->show(total > 0 ? QString::fromStdString(typedAs(total)) : QString());
  if (!m_share->hasFocus())
    m_share->show(total > 0 && ammonium > 0 ? QString::number(100 * ammonium / total, 'f', 1) : QString());
}

/// Written as nitrate and ammonium: what the plants tell apart.
void TargetStrength::nitrogenTyped() {
  if (m_total->isWrong() || m_share->isWrong()) return;
  TargetEdits(m_editor).setNitrogen(m_total->digits(), m_share->digits());
}

QString TargetStrength::rangeText(double low, double high) const {
  return tr("%1 to %2")
      .arg(m_units.digits(core::Conductivity::fromMilliSiemensPerCm(low)),
           m_units.text(core::Conductivity::fromMilliSiemensPerCm(high)));
}

void TargetStrength::fillSeasons() {
  const auto crop = QString::fromStdString(m_editor.document().crop.empty() ? m_editor.document().targetName
                                                                            : m_editor.document().crop);
  const auto unit = m_units.conductivityUnit();
  if (crop == m_seasonCrop && unit == m_seasonUnit && m_season->count() > 0) return;
  m_seasonCrop = crop;
  m_seasonUnit = unit;
  m_season->clear();
  m_season->addItem(tr("Usual strength by season…"));
  for (const auto& rule : core::seasonRules(crop.toStdString()))
    m_season->addItem(
        tr("%1: EC %2")
            .arg(QString::fromStdString(rule.name), rangeText(*rule.range->ecLow, *rule.range->ecHigh)));
}

void TargetStrength::scaleTo(double milliSiemensPerCm, const core::Deed& deed) {
  const auto& request = m_editor.document().given.request;
  const auto factor = core::factorForConductivity(request.rows, request.alkalinityLeftMeqPerL.value_or(0),
                                                  milliSiemensPerCm, m_traces->isChecked());
  if (!factor) return emit message(QString::fromStdString(words::problemText(factor.problem())));
  TargetEdits(m_editor).scale(deed, core::scaled(request.rows, *factor, m_traces->isChecked()));
}

} // namespace butte::app
