#include "stations/water_page.h"

#include "document/formula_editor.h"
#include "fields/number_field.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "stations/falling_words.h"
#include "words.h"

#include <QComboBox>
#include <QFile>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QVBoxLayout>

namespace butte::app {

using exchange::Json;

WaterPage::WaterPage(FormulaEditor& editor, UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_units(units), m_choice(new QComboBox), m_name(new QLineEdit),
      m_ec(new NumberField({"EC of the water", "mS/cm", 0, 200, true})), m_ph(new NumberField({"pH of the water", "", 0, 14, true})),
      m_balance(new QLabel) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(5);
  auto* title = new QLabel("Water: as the report states it");
  title->setFont(faceOf(15, true));
  column->addWidget(title);
  m_choice->setObjectName("waterChoice");
  m_choice->setAccessibleName("waters at hand");
  readChoices();
  connect(m_choice, &QComboBox::activated, this, &WaterPage::choose);
  m_name->setObjectName("waterName");
  m_name->setAccessibleName("name of the water");
  connect(m_name, &QLineEdit::textEdited, this, [this](const QString& text) {
    m_editor.set("water named “" + text + "”", "/water/name", text.toStdString(), true);
  });
  column->addWidget(m_choice);
  column->addWidget(m_name);
  auto* grid = new QGridLayout;
  grid->setVerticalSpacing(4);
  const std::vector<std::pair<QString, std::vector<std::pair<QString, std::string>>>> rows{
      {"Calcium", {{"Ca", "Ca"}, {"CaO", "CaO"}}},
      {"Magnesium", {{"Mg", "Mg"}, {"MgO", "MgO"}}},
      {"Potassium", {{"K", "K"}, {"K₂O", "K2O"}}},
      {"Sodium", {{"Na", "Na"}}},
      {"Ammonium", {{"NH₄", "NH4"}, {"NH₄-N", "N_NH4"}}},
      {"Hardness", {{"as CaCO₃", "hardness_as_CaCO3"}}},
      {"Alkalinity", {{"HCO₃", "HCO3"}, {"as CaCO₃", "alkalinity_as_CaCO3"}}},
      {"Nitrate", {{"NO₃", "NO3"}, {"NO₃-N", "N_NO3"}}},
      {"Sulfate", {{"SO₄", "SO4"}, {"SO₄-S", "S"}}},
      {"Chloride", {{"Cl", "Cl"}}},
      {"Phosphate", {{"P", "P"}, {"H₂PO₄", "H2PO4"}, {"P₂O₅", "P2O5"}}},
      {"Silicon", {{"Si", "Si"}, {"SiO₂", "SiO2"}}},
      {"Iron", {{"Fe", "Fe"}}},
      {"Manganese", {{"Mn", "Mn"}}},
      {"Zinc", {{"Zn", "Zn"}}},
      {"Boron", {{"B", "B"}}}};
  int index = 0;
  for (const auto& [name, forms] : rows) addRow(name, forms, grid, index++);
  grid->setColumnMinimumWidth(4, 24);
  grid->setColumnStretch(9, 1);
  column->addLayout(grid);
  m_ec->setObjectName("waterEc");
  m_ph->setObjectName("waterPh");
  m_ec->setFixedWidth(74);
  m_ph->setFixedWidth(74);
  m_ec->onTyped = [this](const QString& d) {
    m_editor.set("water EC to " + d, "/water/ec", d.isEmpty() ? Json(nullptr) : exchange::amountJson(d.toStdString(), "mS/cm"), true);
  };
  m_ph->onTyped = [this](const QString& d) {
    m_editor.set("water pH to " + d, "/water/ph", d.isEmpty() ? Json(nullptr) : Json(d.toStdString()), true);
  };
  for (auto* field : {m_ec, m_ph}) field->onMessage = [this](const QString& words) { emit message(words); };
  auto* meters = new QHBoxLayout;
  meters->addWidget(new QLabel("By the meters: EC"));
  meters->addWidget(m_ec);
  meters->addWidget(new QLabel("mS/cm    pH"));
  meters->addWidget(m_ph);
  meters->addStretch();
  column->addLayout(meters);
  m_balance->setObjectName("waterBalance");
  m_balance->setWordWrap(true);
  column->addWidget(m_balance);
  column->addStretch();
  connect(&editor, &FormulaEditor::changed, this, &WaterPage::refresh);
  connect(&units, &UnitsShown::changed, this, &WaterPage::refresh);
  refresh();
}

void WaterPage::addRow(const QString& name, std::vector<std::pair<QString, std::string>> forms, QGridLayout* grid, int index) {
  Row row;
  row.form = new QComboBox;
  row.form->setAccessibleName(name + " is stated as");
  for (const auto& [shown, key] : forms) {
    row.form->addItem(shown, QString::fromStdString(key));
    row.keys.push_back(key);
  }
  row.form->setEnabled(forms.size() > 1);
  row.form->setFixedWidth(96);
  row.amount = new NumberField({name + " in the water", "mg/L", 0, 100000, true});
  row.amount->setObjectName("water_" + QString::fromStdString(forms.front().second));
  row.amount->setFixedWidth(80);
  row.amount->setPlaceholderText("–");
  const auto at = m_rows.size();
  row.amount->onTyped = [this, at](const QString& digits) { typed(at, digits); };
  row.amount->onMessage = [this](const QString& words) { emit message(words); };
  connect(row.form, &QComboBox::activated, this, [this, at] { formChosen(at); });
  const int line = index % 8, side = index / 8 * 5;
  grid->addWidget(new QLabel(name), line, side);
  grid->addWidget(row.form, line, side + 1);
  grid->addWidget(row.amount, line, side + 2);
  grid->addWidget(new QLabel("mg/L"), line, side + 3);
  m_rows.push_back(std::move(row));
}

void WaterPage::readChoices() {
  m_choice->addItem("Take a water at hand…");
  m_choice->addItem("Pure water (RO, distilled)", QByteArray(R"({"name": "Pure water", "rows": []})"));
  QFile file(":/demo/waters.json");
  if (!file.open(QIODevice::ReadOnly)) return;
  const auto text = file.readAll();
  const auto waters = Json::parse(text.begin(), text.end(), nullptr, false);
  if (!waters.is_array()) return;
  for (const auto& water : waters)
    m_choice->addItem(QString::fromStdString(water.value("name", "")), QByteArray::fromStdString(water.dump()));
}

int WaterPage::documentRowOf(const Row& row) const {
  const auto& rows = m_editor.json()["water"]["rows"];
  for (std::size_t i = 0; i < rows.size(); ++i) {
    const auto key = rows[i]["key"].get<std::string>();
    if (std::find(row.keys.begin(), row.keys.end(), key) != row.keys.end()) return static_cast<int>(i);
  }
  return -1;
}

void WaterPage::refresh() {
  const auto& document = m_editor.document();
  const auto name = QString::fromStdString(document.waterName);
  if (m_name->text() != name) m_name->setText(name);
  const auto& water = m_editor.json()["water"];
  for (const auto& row : m_rows) {
    const int at = documentRowOf(row);
    if (at >= 0) row.form->setCurrentIndex(row.form->findData(QString::fromStdString(water["rows"][static_cast<std::size_t>(at)]["key"].get<std::string>())));
    row.amount->show(at < 0 ? QString() : QString::fromStdString(water["rows"][static_cast<std::size_t>(at)]["mg_per_l"].get<std::string>()));
  }
  const bool hasEc = water.contains("ec") && water["ec"].is_object();
  m_ec->show(hasEc ? QString::fromStdString(water["ec"]["amount"].get<std::string>()) : QString());
  m_ph->show(water.contains("ph") && water["ph"].is_string() ? QString::fromStdString(water["ph"].get<std::string>()) : QString());
  const auto& base = m_editor.answer().water;
  auto text = QString("cations %1 · anions %2 meq/L · EC by the ions %3")
                  .arg(localNumber(base.ions.cationsMeqPerL(), 2), localNumber(base.ions.anionsMeqPerL(), 2), m_units.text(base.conductivity));
  for (const auto remark : document.given.request.water.remarks) text += "\n• " + QString::fromStdString(words::waterRemarkText(remark));
  for (const auto& sentence : fallingSentences("This water", base)) text += "\n• " + sentence;
  text += "\nAn empty row is not measured, which is not zero. The acid need comes from the alkalinity, not from the pH.";
  m_balance->setText(text);
}

void WaterPage::choose(int index) {
  const auto text = m_choice->itemData(index).toByteArray();
  m_choice->setCurrentIndex(0);
  if (text.isEmpty()) return;
  const auto water = Json::parse(text.begin(), text.end());
  m_editor.set("water “" + QString::fromStdString(water.value("name", "")) + "”", "/water", water);
}

void WaterPage::typed(std::size_t index, const QString& digits) {
  const auto& row = m_rows[index];
  const auto key = row.form->currentData().toString().toStdString();
  Json rows = m_editor.json()["water"]["rows"];
  const int at = documentRowOf(row);
  if (digits.isEmpty()) {
    if (at < 0) return;
    rows.erase(static_cast<std::size_t>(at));
  } else if (at >= 0) {
    rows[static_cast<std::size_t>(at)]["mg_per_l"] = digits.toStdString();
  } else {
    rows.push_back({{"key", key}, {"mg_per_l", digits.toStdString()}});
  }
  exchange::Edit edit{("water: " + key + (digits.isEmpty() ? " not measured" : " to " + digits.toStdString() + " mg/L")),
                      {{"/water/rows", m_editor.json()["water"]["rows"], rows}}, "water" + key};
  m_editor.apply(edit);
}

void WaterPage::formChosen(std::size_t index) {
  const auto& row = m_rows[index];
  const int at = documentRowOf(row);
  if (at < 0) return;
  const auto key = row.form->currentData().toString().toStdString();
  m_editor.set("the water's figure is stated as " + row.form->currentText(), "/water/rows/" + std::to_string(at) + "/key", key);
}

} // namespace butte::app
