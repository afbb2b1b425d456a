#include "stations/water/report_table.h"

#include "document/formula_editor.h"
#include "edits/water_edits.h"
#include "fields/number_field.h"
#include "measures.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "water/report_row.h"
#include "water_words.h"
#include "wording/tr.h"

#include <QAbstractItemView>
#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <algorithm>

namespace butte::app {

namespace {

/// As fine as a balance needs.
QString equivalentsText(double meqPerLitre) {
  return meqPerLitre < 0.0995 ? localNumber(meqPerLitre, 3) : localFigure(meqPerLitre);
}

} // namespace

ReportTable::ReportTable(FormulaEditor& editor, QWidget* parent) : QWidget(parent), m_editor(editor) {
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(0, 0, 8, 0);
  grid->setVerticalSpacing(3);
  grid->setHorizontalSpacing(5);
  addMeters(grid);
  addRow(grid, tr("Calcium"), {{"Ca", "Ca"}, {"CaO", "CaO"}}, true);
  addRow(grid, tr("Magnesium"), {{"Mg", "Mg"}, {"MgO", "MgO"}}, true);
  addRow(grid, tr("Sodium"), {{"Na", "Na"}}, true);
  addRow(grid, tr("Potassium"), {{"K", "K"}, {"K₂O", "K2O"}}, true);
  addRow(grid, tr("Bicarbonate"), {{"HCO₃", "HCO3"}}, true);
  addRow(grid, tr("Alkalinity"), {{tr("as CaCO₃"), "alkalinity_as_CaCO3"}}, true);
  addRow(grid, tr("Chloride"), {{"Cl", "Cl"}}, true);
  addRow(grid, tr("Sulfate"), {{"SO₄", "SO4"}, {"SO₄-S", "S"}, {"SO₃", "SO3"}}, true);
  addRow(grid, tr("Nitrate"), {{"NO₃", "NO3"}, {"NO₃-N", "N_NO3"}, {tr("N, sum"), "N"}}, true);
  addRow(grid, tr("Hardness"), {{tr("as CaCO₃"), "hardness_as_CaCO3"}}, true);
  addRow(grid, tr("Ammonium"), {{"NH₄", "NH4"}, {"NH₄-N", "N_NH4"}}, true);
  addRow(grid, tr("Phosphate"), {{"P", "P"}, {"H₂PO₄", "H2PO4"}, {"PO₄", "PO4"}, {"P₂O₅", "P2O5"}}, true);
  addRow(grid, tr("Boron"), {{"B", "B"}}, false);
  addRow(grid, tr("Iron"), {{"Fe", "Fe"}}, true);
  addRow(grid, tr("Manganese"), {{"Mn", "Mn"}}, true);
  addRow(grid, tr("Zinc"), {{"Zn", "Zn"}}, true);
  addRow(grid, tr("Copper"), {{"Cu", "Cu"}}, true);
  addRow(grid, tr("Molybdenum"), {{"Mo", "Mo"}}, false);
  addRow(grid, tr("Silicon"), {{"Si", "Si"}, {"SiO₂", "SiO2"}}, false);
  addRow(grid, tr("Carbonate"), {{"CO₃", "CO3"}}, true);
  addRow(grid, tr("Fluoride"), {{"F", "F"}}, true);
  addRow(grid, tr("Free chlorine"), {{"Cl₂", "free_chlorine"}}, false);
  addRow(grid, tr("Chloramine"), {{tr("as Cl₂"), "chloramine"}}, false);
  addRow(grid, tr("Diss. solids"), {{"TDS", "TDS"}}, false);
  const std::pair<QString, const char*> harmful[] = {{tr("Susp. solids"), "suspended_solids"},
                                                     {tr("Hydr. sulfide"), "H2S"},
                                                     {tr("Aluminium"), "Al"},
                                                     {tr("Arsenic"), "As"},
                                                     {tr("Beryllium"), "Be"},
                                                     {tr("Cadmium"), "Cd"},
                                                     {tr("Chromium"), "Cr"},
                                                     {tr("Cobalt"), "Co"},
                                                     {tr("Lead"), "Pb"},
                                                     {tr("Lithium"), "Li"},
                                                     {tr("Nickel"), "Ni"},
                                                     {tr("Selenium"), "Se"},
                                                     {tr("Vanadium"), "V"}};
  for (const auto& [name, key] : harmful)
    addRow(grid, name, {{QString(key).startsWith("susp") ? tr("solids") : QString(key), key}}, false);
  grid->setColumnStretch(4, 1);
}

void ReportTable::addMeters(QGridLayout* grid) {
  m_ec = new NumberField({tr("EC of the water"), "mS/cm", 0, 200000, true});
  m_ec->setObjectName("waterEc");
  m_ecUnit = new QComboBox;
  m_ecUnit->setObjectName("waterEcUnit");
  m_ecUnit->setAccessibleName(tr("unit of the EC"));
  m_ecUnit->setFixedWidth(80);
  for (const auto& [name, unit] :
       std::initializer_list<std::pair<const char*, const char*>>{{"mS/cm", "mS/cm"},
                                                                  {"µS/cm", "uS/cm"},
                                                                  {"ppm 500", "ppm500"},
                                                                  {"ppm 640", "ppm640"},
                                                                  {"ppm 700", "ppm700"}})
    m_ecUnit->addItem(name, unit);
  const auto keep = [this](const QString& d) {
    WaterEdits(m_editor).setConductivity(m_part, typed(d, m_ecUnit->currentData().toString()));
  };
  m_ec->asked = [this] { return AskedUnit{m_ecUnit->currentData().toString().toStdString(), {}}; };
  m_ec->onTyped = keep;
  connect(m_ecUnit, &QComboBox::activated, this, [this, keep] {
    const auto stated = WaterEdits(m_editor).conductivity(m_part);
    m_ecUnitByHand = true;
    if (!stated.isEmpty()) keep(QString::fromStdString(stated.digits));
  });
  m_ph = new NumberField({tr("pH of the water"), "", 0, 14, true});
  m_ph->setObjectName("waterPh");
  m_ph->onTyped = [this](const QString& d) { WaterEdits(m_editor).setPh(m_part, d); };
  for (auto* field : {m_ec, m_ph}) {
    field->setFixedWidth(64);
    field->setPlaceholderText("–");
    field->onMessage = [this](const QString& words) { emit message(words); };
  }
  grid->addWidget(new PlainLabel(tr("EC by meter")), 0, 0);
  grid->addWidget(m_ec, 0, 2);
  grid->addWidget(m_ecUnit, 0, 3);
  grid->addWidget(new PlainLabel(tr("pH")), 1, 0);
  grid->addWidget(m_ph, 1, 2);
}

void ReportTable::addRow(QGridLayout* grid, const QString& name,
                         std::vector<std::pair<QString, std::string>> forms, bool charged) {
  Row row;
  const int line = grid->rowCount();
  const auto at = m_rows.size();
  row.form = new QComboBox;
  row.form->setAccessibleName(tr("%1 is stated as").arg(name));
  row.form->setObjectName("form_" + QString::fromStdString(forms.front().second));
  for (const auto& [shown, key] : forms) {
    row.form->addItem(shown, QString::fromStdString(key));
    row.keys.push_back(key);
  }
  row.form->setEnabled(forms.size() > 1);
  row.form->setFixedWidth(88);
  row.unit = new QComboBox;
  row.unit->setObjectName("unit_" + QString::fromStdString(forms.front().second));
  row.unit->setAccessibleName(tr("unit of %1").arg(name));
  for (const auto& unit : core::reportUnits()) {
    const bool mass = unit == "mg/L" || unit == "ug/L";
    const bool amount = unit == "mmol/L" || unit == "umol/L";
    if (mass || charged || (amount && core::milligramsPerMillimole(forms.front().second)))
      row.unit->addItem(QString::fromStdString(words::reportUnitName(unit)), QString::fromStdString(unit));
  }
  row.unit->setFixedWidth(80);
  row.unit->view()->setMinimumWidth(130);
  row.amount = new NumberField({tr("%1 in the water").arg(name), "", 0, 1e7, true, true});
  row.amount->setObjectName("water_" + QString::fromStdString(forms.front().second));
  row.amount->setFixedWidth(64);
  row.amount->setPlaceholderText("–");
  row.amount->asked = [this, at] {
    const auto& asked = m_rows[at];
    return AskedUnit{asked.unit->currentData().toString().toStdString(), keyOf(asked)};
  };
  row.amount->onTyped = [this, at](const QString& digits) { typedIn(at, digits); };
  row.amount->onMessage = [this](const QString& words) { emit message(words); };
  connect(row.form, &QComboBox::activated, this, [this, at] { formChosen(at); });
  connect(row.unit, &QComboBox::activated, this, [this, at] { unitChosen(at); });
  row.normal = new PlainLabel;
  row.normal->setObjectName("normal_" + QString::fromStdString(forms.front().second));
  row.normal->setProperty("soft", true);
  row.normal->setFont(faceOf(12));
  grid->addWidget(new PlainLabel(name), line, 0);
  grid->addWidget(row.form, line, 1);
  grid->addWidget(row.amount, line, 2);
  grid->addWidget(row.unit, line, 3);
  grid->addWidget(row.normal, line, 4);
  m_rows.push_back(std::move(row));
}

std::string ReportTable::keyOf(const Row& row) const {
  const WaterEdits edits(m_editor);
  for (const auto& key : row.keys) {
    if (edits.reported(m_part, key)) return key;
  }
  return row.form->currentData().toString().toStdString();
}

void ReportTable::show(std::size_t part) {
  if (part != m_part) m_ecUnitByHand = false;
  m_part = part;
  for (const auto& row : m_rows)
    refreshRow(row);
  const WaterEdits edits(m_editor);
  const auto ec = edits.conductivity(part);
  // Where nothing is stated, the person's own; what a hand chose since then stays.
  const auto unit = ec.isEmpty() ? words::measures().conductivityUnit() : ec.unit;
  if (!ec.isEmpty() || !m_ecUnitByHand)
    m_ecUnit->setCurrentIndex(std::max(0, m_ecUnit->findData(QString::fromStdString(unit))));
  m_ec->show(QString::fromStdString(ec.digits)); // its name says the unit
  m_ph->show(QString::fromStdString(edits.ph(part)));
}

void ReportTable::refreshRow(const Row& row) {
  const auto key = keyOf(row);
  const auto stated = WaterEdits(m_editor).reported(m_part, key);
  row.form->setCurrentIndex(std::max(0, row.form->findData(QString::fromStdString(key))));
  if (!stated) {
    row.amount->show({});
    row.normal->clear();
    return;
  }
  row.amount->show((stated->below ? "<" : "") + QString::fromStdString(stated->figure.digits));
  row.unit->setCurrentIndex(std::max(0, row.unit->findData(QString::fromStdString(stated->figure.unit))));
  const auto& rows = m_editor.document().water.plan.parts[m_part].report.rows;
  const auto typed = std::find_if(rows.begin(), rows.end(), [&](const auto& r) { return r.key == key; });
  const auto mg =
      typed == rows.end() ? core::Result<double>(core::Problem{}) : core::milligramsPerLitre(*typed);
  if (!mg) return row.normal->clear();
  QStringList parts;
  if (typed->unit != "mg/L") parts << localFigure(*mg) + " mg/L";
  const auto perMillimole = core::milligramsPerMillimole(key);
  const int charge = core::reportCharge(key);
  if (perMillimole && charge > 0 && typed->unit != "meq/L")
    parts << equivalentsText(*mg / *perMillimole * charge) + " meq/L";
  else if (perMillimole && charge == 0 && typed->unit != "umol/L")
    parts << localFigure(1000 * *mg / *perMillimole) + " µmol/L";
  row.normal->setText((stated->below ? "< " : "= ") + parts.join(" = "));
}

void ReportTable::typedIn(std::size_t index, const QString& digits) {
  const auto& row = m_rows[index];
  WaterEdits(m_editor).setReported(m_part, keyOf(row), digits,
                                   row.unit->currentData().toString().toStdString());
}

void ReportTable::formChosen(std::size_t index) {
  const auto& row = m_rows[index];
  const auto chosen = row.form->currentData().toString().toStdString();
  for (const auto& key : row.keys) {
    if (key == chosen || !WaterEdits(m_editor).reported(m_part, key)) continue;
    return WaterEdits(m_editor).setStatedAs(m_part, key, chosen);
  }
}

void ReportTable::unitChosen(std::size_t index) {
  const auto& row = m_rows[index];
  const auto key = keyOf(row);
  const auto stated = WaterEdits(m_editor).reported(m_part, key);
  if (!stated) return;
  // The figure stays as typed: it is the unit that was mistaken.
  WaterEdits(m_editor).setReported(m_part, key,
                                   (stated->below ? "<" : "") + QString::fromStdString(stated->figure.digits),
                                   row.unit->currentData().toString().toStdString(), false);
  refreshRow(row);
}

} // namespace butte::app
