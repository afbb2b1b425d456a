#include "stations/target_page.h"

#include "base/decimal.h"
#include "document/formula_editor.h"
#include "fields/number_field.h"
#include "paint/theme.h"
#include "target/target.h"
#include "words.h"

#include <QComboBox>
#include <QFile>
#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QVBoxLayout>

namespace butte::app {

using core::Nutrient;
using exchange::Json;

namespace {
constexpr Nutrient shown[] = {Nutrient::N,  Nutrient::NNitrate, Nutrient::NAmmonium, Nutrient::P,
                              Nutrient::K,  Nutrient::Ca,       Nutrient::Mg,        Nutrient::S,
                              Nutrient::Si, Nutrient::Fe,       Nutrient::Mn,        Nutrient::Zn,
                              Nutrient::B,  Nutrient::Cu,       Nutrient::Mo};
}

TargetPage::TargetPage(FormulaEditor& editor, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_choice(new QComboBox), m_name(new QLineEdit),
      m_source(new QLabel) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(5);
  auto* title = new QLabel("Target: what the plants should get");
  title->setFont(faceOf(15, true));
  column->addWidget(title);
  m_choice->setObjectName("targetChoice");
  m_choice->setAccessibleName("published targets");
  m_choice->setMaxVisibleItems(24);
  m_choice->addItem("Take a target…");
  readChoices();
  connect(m_choice, &QComboBox::activated, this, &TargetPage::choose);
  m_name->setObjectName("targetName");
  m_name->setAccessibleName("name of the target");
  connect(m_name, &QLineEdit::textEdited, this, [this](const QString& text) {
    m_editor.set("target named “" + text + "”", "/target/name", text.toStdString(), true);
  });
  m_source->setProperty("soft", true);
  m_source->setWordWrap(true);
  column->addWidget(m_choice);
  column->addWidget(m_name);
  auto* grid = new QGridLayout;
  grid->setHorizontalSpacing(8);
  int index = 0;
  for (const auto n : shown) {
    const auto name = QString::fromStdString(words::nutrientName(n));
    Row row;
    row.nutrient = n;
    row.amount = new NumberField({name + " target", "mg/L", 0, 10000, true});
    row.amount->setObjectName("target_" + QString::fromStdString(std::string(core::nutrientKey(n))));
    row.amount->setPlaceholderText("free");
    row.amount->onTyped = [this, n](const QString& digits) { amountTyped(n, digits); };
    row.band = new NumberField({name + " band", "%", 0, 1000});
    row.band->setObjectName("band_" + QString::fromStdString(std::string(core::nutrientKey(n))));
    row.band->onTyped = [this, n](const QString& digits) { bandTyped(n, digits); };
    for (auto* field : {row.amount, row.band})
      field->onMessage = [this](const QString& words) { emit message(words); };
    row.amount->setFixedWidth(80);
    row.band->setFixedWidth(54);
    const int line = index % 8, side = index / 8 * 6;
    grid->addWidget(
        new QLabel(QString("<b>%1</b> %2").arg(QString::fromStdString(words::nutrientSymbol(n)), name)), line,
        side);
    grid->addWidget(row.amount, line, side + 1);
    grid->addWidget(new QLabel("mg/L ±"), line, side + 2);
    grid->addWidget(row.band, line, side + 3);
    grid->addWidget(new QLabel("%"), line, side + 4);
    m_rows.push_back(row);
    ++index;
  }
  grid->setColumnMinimumWidth(5, 24);
  grid->setColumnStretch(11, 1);
  column->addLayout(grid);
  column->addWidget(m_source);
  column->addStretch();
  connect(&editor, &FormulaEditor::changed, this, &TargetPage::refresh);
  refresh();
}

int TargetPage::rowOf(Nutrient nutrient) const {
  const auto& rows = m_editor.document().given.request.rows;
  for (std::size_t i = 0; i < rows.size(); ++i) {
    if (rows[i].nutrient == nutrient) return static_cast<int>(i);
  }
  return -1;
}

void TargetPage::refresh() {
  const auto name = QString::fromStdString(m_editor.document().targetName);
  if (m_name->text() != name) m_name->setText(name);
  const auto& rows = m_editor.json()["target"]["rows"];
  for (const auto& row : m_rows) {
    const int at = rowOf(row.nutrient);
    row.band->setEnabled(at >= 0);
    row.amount->show(
        at < 0 ? QString()
               : QString::fromStdString(rows[static_cast<std::size_t>(at)]["mg_per_l"].get<std::string>()));
    row.band->show(at < 0 ? QString()
                          : QString::fromStdString(rows[static_cast<std::size_t>(at)].value(
                                "tolerance_percent", std::string("5"))));
  }
  m_source->setText(
      "An empty element is free: it may be anything. N is nitrate, ammonium and urea together.");
}

void TargetPage::readChoices() {
  QFile file(":/demo/targets.json");
  if (file.open(QIODevice::ReadOnly)) {
    const auto text = file.readAll();
    const auto targets = Json::parse(text.begin(), text.end(), nullptr, false);
    for (const auto& target : targets.is_array() ? targets : Json::array())
      m_choice->addItem("demo · " + QString::fromStdString(target.value("name", "")),
                        QByteArray::fromStdString(target.dump()));
  }
  for (const auto& t : core::targetCatalogue())
    m_choice->addItem(QString("%1 · %2 · %3")
                          .arg(QString::fromStdString(t.crop), QString::fromStdString(t.stage),
                               QString::fromStdString(t.name)),
                      QString::fromStdString(t.id));
}

void TargetPage::choose(int index) {
  if (const auto own = m_choice->itemData(index).toByteArray(); own.startsWith('{')) {
    m_choice->setCurrentIndex(0);
    const auto target = Json::parse(own.begin(), own.end());
    m_editor.set("target “" + QString::fromStdString(target.value("name", "")) + "”", "/target", target);
    return;
  }
  const auto* target = core::findTarget(m_choice->itemData(index).toString().toStdString());
  m_choice->setCurrentIndex(0);
  if (!target) return;
  const auto name = QString::fromStdString(target->name);
  const auto& json = m_editor.json();
  exchange::Edit edit{
      "target “" + target->name + "”", {{"/target", json["target"], exchange::targetJson(*target)}}, {}};
  if (m_editor.document().crop.empty()) edit.changes.push_back({"/crop", Json(), target->crop});
  m_editor.apply(edit);
  emit message(QString("%1: %2, confidence %3. %4")
                   .arg(name, QString::fromStdString(target->source),
                        QString::fromStdString(target->confidence), QString::fromStdString(target->note)));
}

void TargetPage::amountTyped(Nutrient nutrient, const QString& digits) {
  const auto name = QString::fromStdString(words::nutrientName(nutrient));
  const int at = rowOf(nutrient);
  if (at >= 0 && !digits.isEmpty()) {
    m_editor.set(QString("%1 target to %2 mg/L").arg(name, digits),
                 "/target/rows/" + std::to_string(at) + "/mg_per_l", digits.toStdString(), true);
    return;
  }
  Json rows = m_editor.json()["target"]["rows"];
  if (at >= 0)
    rows.erase(static_cast<std::size_t>(at));
  else if (!digits.isEmpty())
    rows.push_back({{"nutrient", core::nutrientKey(nutrient)},
                    {"mg_per_l", digits.toStdString()},
                    {"tolerance_percent", core::isTraceElement(nutrient) ? "15" : "5"}});
  m_editor.set(digits.isEmpty() ? name + " left free" : QString("%1 target to %2 mg/L").arg(name, digits),
               "/target/rows", rows);
}

void TargetPage::bandTyped(Nutrient nutrient, const QString& digits) {
  const int at = rowOf(nutrient);
  if (at < 0) return;
  m_editor.set(QString("%1 band to ±%2 %").arg(QString::fromStdString(words::nutrientName(nutrient)), digits),
               "/target/rows/" + std::to_string(at) + "/tolerance_percent", digits.toStdString(), true);
}

} // namespace butte::app
