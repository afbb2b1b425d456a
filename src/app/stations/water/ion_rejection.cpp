#include "stations/water/ion_rejection.h"

#include "base/decimal.h"
#include "document/formula_editor.h"
#include "edits/water_edits.h"
#include "fields/number_field.h"
#include "paint/plain_label.h"
#include "services/units_shown.h"
#include "water/water_plan.h"
#include "wording/tr.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>

namespace butte::app {

using core::Nutrient;

IonRejection::IonRejection(FormulaEditor& editor, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_ion(new QComboBox),
      m_field(new NumberField({tr("rejection of this ion"), "%", 0, 100, true})) {
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(6);
  m_ion->setObjectName("roIon");
  m_ion->setAccessibleName(tr("ion held back"));
  const std::pair<const char*, Nutrient> ions[] = {
      {"boron", Nutrient::B},      {"nitrate", Nutrient::NNitrate}, {"sodium", Nutrient::Na},
      {"chloride", Nutrient::Cl},  {"potassium", Nutrient::K},      {"calcium", Nutrient::Ca},
      {"magnesium", Nutrient::Mg}, {"sulfate", Nutrient::S},        {"silicon", Nutrient::Si}};
  for (const auto& [name, nutrient] : ions)
    m_ion->addItem(name, QString::fromUtf8(core::nutrientKey(nutrient).data()));
  connect(m_ion, &QComboBox::activated, this, &IonRejection::refresh);
  m_field->setObjectName("roIonRejection");
  m_field->setFixedWidth(60);
  m_field->onTyped = [this](const QString& digits) { set(digits); };
  m_field->onMessage = [this](const QString& words) { emit message(words); };
  row->addWidget(new PlainLabel(tr("of it")));
  row->addWidget(m_ion);
  row->addWidget(m_field);
  row->addWidget(new PlainLabel(tr("% (empty: as usual)")));
  row->addStretch();
}

void IonRejection::showPart(std::size_t part) {
  m_part = part;
  refresh();
}

/// The maker's figure where one was typed; else the usual one, in grey.
void IonRejection::refresh() {
  const auto& parts = m_editor.document().water.plan.parts;
  const auto* plant =
      m_part < parts.size() ? std::get_if<core::ReverseOsmosis>(&parts[m_part].treatment) : nullptr;
  const auto nutrient = core::nutrientFromKey(m_ion->currentData().toString().toStdString());
  if (!plant || !nutrient) return;
  m_field->setPlaceholderText(localNumber(100 * (1 - core::passage(*nutrient, *plant)), 1));
  const auto own = plant->rejectionOf.find(*nutrient);
  m_field->show(own == plant->rejectionOf.end() ? QString()
                                                : QString::fromStdString(core::decimalText(own->second)));
}

void IonRejection::set(const QString& digits) {
  const auto nutrient = core::nutrientFromKey(m_ion->currentData().toString().toStdString());
  if (nutrient) WaterEdits(m_editor).setIonRejection(m_part, *nutrient, digits);
}

} // namespace butte::app
