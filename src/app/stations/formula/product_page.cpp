#include "stations/formula/product_page.h"

#include "base/decimal.h"
#include "document/formula_editor.h"
#include "edits/edits.h"
#include "edits/shelf_edits.h"
#include "fields/number_field.h"
#include "formula_document.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "product/catalogue.h"
#include "services/units_shown.h"
#include "stations/formula/label_paper.h"
#include "stations/formula/product_facts.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "words.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QRadioButton>
#include <QVBoxLayout>
#include <algorithm>

namespace butte::app {

namespace {

/// A cup of ten spoons is weighed on a kitchen scale, which shows grams or ounces.
std::string spoonUnit(const words::Measures& measures) {
  return measures.mass == MassShown::Metric ? "g" : "oz";
}

} // namespace

ProductPage::ProductPage(FormulaEditor& editor, UnitsShown& units, Prompts& prompts, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_units(units), m_title(new PlainLabel), m_facts(new WrappedLabel),
      m_problem(new WrappedLabel), m_name(new QLineEdit), m_formula(new QLineEdit), m_code(new QLineEdit),
      m_byLabel(new QRadioButton(tr("by its label, percent by weight"))),
      m_byFormula(new QRadioButton(tr("by its formula"))),
      m_purity(new NumberField({tr("purity"), "%", 0.01, 100, true})),
      m_price(new NumberField({tr("price"), "", 0, 1e6, true})),
      m_density(new NumberField({tr("density of a liquid"), "", 0.1, 30, true})),
      m_bagPrice(new NumberField({tr("price of a bag"), "", 0, 1e7, true})),
      m_bag(new NumberField({tr("bag"), "", 0.001, 11000, true})),
      m_step(new NumberField({tr("weighed in steps of"), "", 0.0001, 1e6, true})),
      m_content(new NumberField({tr("error of the content"), "%", 0, 50, true})),
      m_spoons(new NumberField({tr("ten level teaspoons"), "", 0.001, 1000, true})),
      m_doubts(new WrappedLabel), m_densityUnit(new PlainLabel), m_priceUnit(new PlainLabel),
      m_bagUnit(new PlainLabel), m_stepUnit(new PlainLabel), m_spoonsUnit(new PlainLabel),
      m_labelPaper(new LabelPaper(prompts)), m_ownPart(new QWidget), m_put(new QPushButton),
      m_remove(new QPushButton(tr("Take off the shelf"))) {
  m_title->setFont(faceOf(15, true));
  m_facts->setTextFormat(Qt::PlainText);
  m_problem->setObjectName("productProblem");
  m_name->setObjectName("productName");
  m_name->setPlaceholderText(tr("name on the bag"));
  m_formula->setObjectName("productFormula");
  m_formula->setPlaceholderText(tr("such as Ca(NO3)2·4H2O"));
  m_purity->setObjectName("productPurity");
  m_purity->setFixedWidth(70);
  m_price->setObjectName("productPrice");
  m_price->setFixedWidth(80);
  m_put->setObjectName("putProduct");
  m_put->setProperty("primary", true);
  m_byLabel->setChecked(true);
  makeOwnPart();
  auto* priceRow = new QHBoxLayout;
  priceRow->addWidget(new PlainLabel(tr("Price")));
  priceRow->addWidget(m_price);
  priceRow->addWidget(m_priceUnit);
  priceRow->addStretch();
  m_doubts->setObjectName("productDoubts");
  auto* buttons = new QHBoxLayout;
  auto* back = new QPushButton(tr("Back"));
  back->setObjectName("productBack");
  buttons->addWidget(m_put);
  buttons->addWidget(m_remove);
  buttons->addWidget(back);
  buttons->addStretch();
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->addWidget(m_title);
  column->addWidget(m_facts);
  column->addWidget(m_ownPart);
  column->addLayout(priceRow);
  column->addLayout(makeBag());
  column->addLayout(makeSpoons());
  column->addWidget(m_doubts);
  column->addWidget(m_problem);
  column->addLayout(buttons);
  column->addStretch();
  askInUnits();
  connect(m_put, &QPushButton::clicked, this, &ProductPage::put);
  connect(m_remove, &QPushButton::clicked, this, &ProductPage::remove);
  connect(back, &QPushButton::clicked, this, &ProductPage::done);
  connect(m_formula, &QLineEdit::textEdited, this, [this] {
    m_byFormula->setChecked(true);
    showDoubts();
  });
}

/// A product of the grower's own: its name, its label or formula, its density.
void ProductPage::makeOwnPart() {
  auto* own = new QVBoxLayout(m_ownPart);
  own->setContentsMargins(0, 0, 0, 0);
  own->addWidget(m_name);
  own->addWidget(m_byLabel);
  own->addWidget(m_labelPaper);
  connect(m_labelPaper, &LabelPaper::understood, this, &ProductPage::takeLabel);
  own->addLayout(makeLabelGrid());
  own->addWidget(m_byFormula);
  auto* formulaRow = new QHBoxLayout;
  formulaRow->addWidget(m_formula, 1);
  formulaRow->addWidget(new PlainLabel(tr("purity")));
  formulaRow->addWidget(m_purity);
  formulaRow->addWidget(new PlainLabel("%"));
  own->addLayout(formulaRow);
  m_density->setObjectName("productDensity");
  m_density->setFixedWidth(70);
  auto* liquidRow = new QHBoxLayout;
  liquidRow->addWidget(new PlainLabel(tr("A liquid? Its density")));
  liquidRow->addWidget(m_density);
  liquidRow->addWidget(m_densityUnit);
  liquidRow->addStretch();
  own->addLayout(liquidRow);
}

void ProductPage::askInUnits() {
  connect(&m_units, &UnitsShown::changed, this, [this] { showInUnits(asTyped()); });
  const auto inUnit = [](NumberField* field, std::function<std::string()> unit) {
    field->asked = [unit = std::move(unit)] { return AskedUnit{unit(), {}}; };
  };
  inUnit(m_density, [this] { return m_shownIn.densityUnit(); });
  inUnit(m_bag, [this] { return m_shownIn.bulkUnit(); });
  inUnit(m_step, [this] { return m_shownIn.massUnit(); });
  inUnit(m_spoons, [this] { return spoonUnit(m_shownIn); });
}

/// What was read of a label goes into the fields, to be looked at.
void ProductPage::takeLabel(const reading::LabelText& read) {
  m_byLabel->setChecked(true);
  for (auto& [key, field] : m_label) {
    const auto row =
        std::find_if(read.rows.begin(), read.rows.end(), [&](const auto& r) { return r.first == key; });
    field->show(row == read.rows.end() ? QString() : QString::number(row->second, 'g', 5));
  }
  if (read.densityKgPerL)
    m_density->show(
        digitsIn({core::decimalText(*read.densityKgPerL), "kg/L"}, qtext(m_shownIn.densityUnit())));
  showDoubts();
}

/// The bag as it is bought, and how it is handled.
QLayout* ProductPage::makeBag() {
  auto* row = new FlowRow;
  m_bagPrice->setObjectName("productBagPrice");
  m_bag->setObjectName("productBag");
  m_step->setObjectName("productStep");
  m_content->setObjectName("productContentError");
  m_code->setObjectName("productCode");
  m_code->setMaxLength(4);
  m_code->setFixedWidth(52);
  m_code->setPlaceholderText("KN");
  m_code->setAccessibleName(tr("short code"));
  for (auto* field : {m_bagPrice, m_bag, m_step, m_content}) {
    field->setFixedWidth(60);
    field->onMessage = [this](const QString& words) { emit message(words); };
  }
  m_content->setPlaceholderText(tr("usual"));
  m_step->setToolTip(tr("A bag, a scoop: with “in scale steps” it is used in whole numbers of this"));
  row->addTogether(
      {new PlainLabel(tr("or")), m_bagPrice, new PlainLabel(tr("for a bag of")), m_bag, m_bagUnit});
  row->addTogether({new PlainLabel(tr("· in steps of")), m_step, m_stepUnit});
  row->addTogether({new PlainLabel(tr("· content ±")), m_content, new PlainLabel("%")});
  row->addTogether({new PlainLabel(tr("· code")), m_code});
  return row;
}

/// How a level spoon of it is learnt.
QLayout* ProductPage::makeSpoons() {
  auto* row = new QHBoxLayout;
  m_spoons->setObjectName("productTenTeaspoons");
  m_spoons->setFixedWidth(70);
  m_spoons->onMessage = [this](const QString& words) { emit message(words); };
  const auto why =
      tr("Fill ten level teaspoons into one cup and weigh them: then its spoons are right to some 10 %, "
         "else to a third");
  m_spoons->setToolTip(why);
  auto* label = new PlainLabel(tr("Ten level teaspoons of it weigh"));
  label->setToolTip(why);
  row->addWidget(label);
  row->addWidget(m_spoons);
  row->addWidget(m_spoonsUnit);
  row->addStretch();
  return row;
}

/// What has a unit, in those of the person.
void ProductPage::showInUnits(const TypedProduct& product) {
  m_shownIn = m_units.measures();
  m_storedPrice = product.pricePerKg;
  m_price->show(priceShown(m_storedPrice));
  m_density->show(digitsIn({product.densityKgPerL, "kg/L"}, qtext(m_shownIn.densityUnit())));
  m_bag->show(digitsIn(product.bag, qtext(m_shownIn.bulkUnit())));
  m_step->show(digitsIn(product.step, qtext(m_shownIn.massUnit())));
  m_spoons->show(digitsIn(product.tenTeaspoons, qtext(spoonUnit(m_shownIn))));
  m_spoonsUnit->setText(qtext(spoonUnit(m_shownIn)));
  m_densityUnit->setText(tr("%1 (empty for a solid)").arg(qtext(m_shownIn.densityUnitName())));
  m_priceUnit->setText(tr("per %1, in your currency").arg(qtext(m_shownIn.bulkUnit())));
  m_bagUnit->setText(qtext(m_shownIn.bulkUnit()));
  m_stepUnit->setText(qtext(m_shownIn.massUnit()));
}

/// What a price is for.
double ProductPage::kilogramsOfPrice() const {
  return m_shownIn.mass == MassShown::Metric ? 1 : core::Mass::fromPounds(1).kilograms();
}

QString ProductPage::priceShown(const std::string& perKg) const {
  const auto price = core::parseDecimal(perKg);
  if (!price || m_shownIn.mass == MassShown::Metric) return QString::fromStdString(perKg);
  return QString::number(*price * kilogramsOfPrice(), 'g', 6);
}

/// As it was kept, where nobody typed another.
std::string ProductPage::pricePerKg() const {
  const auto digits = m_price->digits();
  if (digits == priceShown(m_storedPrice)) return m_storedPrice;
  const auto price = core::parseDecimal(digits.toStdString());
  return price ? core::decimalText(*price / kilogramsOfPrice()) : std::string();
}

void ProductPage::showBag(const TypedProduct& product) {
  const auto text = [](const std::string& s) { return QString::fromStdString(s); };
  m_bagPrice->show(text(product.bagPrice));
  m_content->show(text(product.contentErrorPercent));
  m_code->setText(text(product.code));
}

/// What looks wrong, while it is typed.
void ProductPage::showDoubts() {
  m_doubts->clear();
  if (!m_ownPart->isVisibleTo(this)) return;
  core::ShelfProduct product;
  product.id = m_id;
  std::vector<core::LabelRow> rows;
  if (m_byFormula->isChecked()) {
    auto composition = core::compositionFromFormula(m_formula->text().trimmed().toStdString(), 100);
    if (!composition) return;
    product.composition = std::move(composition).value();
  } else {
    for (const auto& [key, field] : m_label) {
      const auto value = core::parseDecimal(field->digits().toStdString());
      if (value && !field->isWrong()) rows.emplace_back(key, *value);
    }
    auto composition = core::compositionFromLabel(rows);
    if (rows.empty() || !composition) return;
    product.composition = composition->composition;
  }
  QStringList lines;
  for (const auto& found : core::productDoubts(product, rows, m_editor.document().allProducts))
    lines << "▲ " + QString::fromStdString(words::productDoubtText(found));
  m_doubts->setText(lines.join("\n"));
  m_doubts->setStyleSheet(QString("color: %1;").arg(theme().amberInk.name()));
}

QLayout* ProductPage::makeLabelGrid() {
  auto* row = new FlowRow;
  const std::vector<std::pair<QString, std::string>> keys{
      {tr("N total"), "N"}, {"NO₃-N", "N_NO3"}, {"NH₄-N", "N_NH4"}, {"urea-N", "N_urea"}, {"P₂O₅", "P2O5"},
      {"K₂O", "K2O"},       {"Ca", "Ca"},       {"CaO", "CaO"},     {"Mg", "Mg"},         {"MgO", "MgO"},
      {"S", "S"},           {"SO₃", "SO3"},     {"Fe", "Fe"},       {"Mn", "Mn"},         {"Zn", "Zn"},
      {"B", "B"},           {"Cu", "Cu"},       {"Mo", "Mo"},       {"P", "P"},           {"K", "K"},
      {"Na", "Na"},         {"Cl", "Cl"},       {"Si", "Si"},       {"SiO₂", "SiO2"}};
  int widest = 0; // they stand in columns, as many as there is room for
  for (const auto& [shown, key] : keys)
    widest = std::max(widest, PlainLabel(shown).sizeHint().width());
  for (const auto& [shown, key] : keys) {
    auto* field = new NumberField({tr("%1 on the label").arg(shown), "%", 0, 100, true});
    field->setObjectName("label_" + QString::fromStdString(key));
    field->setFixedWidth(56);
    field->onTyped = [this](const QString&) {
      m_byLabel->setChecked(true);
      showDoubts();
    };
    field->onMessage = [this](const QString& words) { emit message(words); };
    auto* name = new PlainLabel(shown);
    name->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    name->setFixedWidth(widest);
    row->addTogether({name, field});
    m_label.emplace_back(key, field);
  }
  return row;
}

void ProductPage::showProduct(const std::string& id) {
  m_id = id;
  m_problem->clear();
  m_labelPaper->clear();
  const int at = m_editor.indexOf(id);
  const bool own = at < 0 || m_editor.document().products[static_cast<std::size_t>(at)].own;
  m_title->setText(at < 0 ? tr("Own product") : QString::fromStdString(m_editor.nameOf(id)));
  m_ownPart->setVisible(own);
  m_remove->setVisible(at >= 0);
  m_put->setText(at < 0 ? tr("Put on the shelf") : tr("Keep the changes"));
  const auto product = ShelfEdits(m_editor).typedProduct(id);
  const auto text = [](const std::string& s) { return QString::fromStdString(s); };
  m_name->setText(text(product.name));
  m_formula->setText(text(product.formula));
  m_purity->show(text(product.purityPercent));
  (product.byFormula ? m_byFormula : m_byLabel)->setChecked(true);
  for (auto& [key, field] : m_label) {
    QString percent;
    for (const auto& [stated, digits] : product.label) {
      if (stated == key) percent = text(digits);
    }
    field->show(percent);
  }
  showBag(product);
  showInUnits(product);
  showFacts();
  showDoubts();
  (own ? m_name : static_cast<QLineEdit*>(m_price))->setFocus();
}

void ProductPage::showFacts() {
  const auto* entry = core::findInCatalogue(m_id);
  m_facts->setVisible(true);
  if (!entry) {
    m_facts->setText(
        tr("The grade's P and K are oxides (P₂O₅, K₂O); what it leaves to 100 % is mostly carrier, "
           "not trace elements. "
           "Copy the label's own rows."));
    return;
  }
  m_facts->setText(productFacts(*entry, m_units));
}

TypedProduct ProductPage::asTyped() const {
  const auto decimal = [](const NumberField* field) { return field->digits().toStdString(); };
  TypedProduct out;
  out.name = m_name->text().trimmed().toStdString();
  out.byFormula = m_byFormula->isChecked();
  out.formula = m_formula->text().trimmed().toStdString();
  out.purityPercent = decimal(m_purity);
  out.densityKgPerL = digitsIn({decimal(m_density), m_shownIn.densityUnit()}, "kg/L").toStdString();
  out.pricePerKg = pricePerKg();
  out.bagPrice = decimal(m_bagPrice);
  out.contentErrorPercent = decimal(m_content);
  out.code = m_code->text().trimmed().toStdString();
  out.bag = {decimal(m_bag), m_shownIn.bulkUnit()};
  out.step = {decimal(m_step), m_shownIn.massUnit()};
  out.tenTeaspoons = {decimal(m_spoons), spoonUnit(m_shownIn)};
  for (const auto& [key, field] : m_label) {
    if (!field->digits().isEmpty()) out.label.emplace_back(key, decimal(field));
  }
  return out;
}

bool ProductPage::anythingWrong() {
  QString words;
  if (m_ownPart->isVisibleTo(this) && m_name->text().trimmed().isEmpty())
    words = tr("Give the product a name, as on the bag.");
  for (const auto* field : {m_price, m_density, m_bagPrice, m_bag, m_step, m_content, m_spoons}) {
    if (field->isWrong()) words = field->message();
  }
  if (m_byFormula->isChecked() && m_purity->isWrong()) words = m_purity->message();
  for (const auto& [key, field] : m_label) {
    if (m_byLabel->isChecked() && field->isWrong()) words = field->message();
  }
  m_problem->setText(words);
  m_problem->setStyleSheet(QString("color: %1; font-weight: bold;").arg(theme().red.name()));
  return !words.isEmpty();
}

void ProductPage::put() {
  if (anythingWrong()) return;
  if (const auto problem = ShelfEdits(m_editor).put(m_id, asTyped(), m_ownPart->isVisibleTo(this))) {
    m_problem->setText(QString::fromStdString(words::problemText(*problem)));
    return;
  }
  emit done();
  if (!m_ownPart->isVisibleTo(this)) return;
  emit ownPut(m_editor.indexOf(m_id) >= 0 ? m_id : m_editor.document().products.back().id);
}

void ProductPage::remove() {
  if (m_editor.indexOf(m_id) < 0) return;
  ShelfEdits(m_editor).remove(m_id);
  emit done();
}

} // namespace butte::app
