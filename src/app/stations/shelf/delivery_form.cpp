#include "stations/shelf/delivery_form.h"

#include "edits/edits.h"
#include "fields/number_field.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QComboBox>
#include <QCompleter>
#include <QDate>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QPushButton>
#include <algorithm>

namespace butte::app {

namespace {

constexpr double mostBag = 1e6, mostPrice = 1e9;
constexpr int longestText = 200;

QString dateDigits(book::Moment at) {
  return QDateTime::fromSecsSinceEpoch(at.seconds).date().toString(Qt::ISODate);
}

/// A day as a hand types it: 2027-05-31, 2027-05 (its last day), or as the language has it.
std::optional<QDate> dayIn(const QString& text) {
  auto day = QDate::fromString(text, Qt::ISODate);
  if (!day.isValid()) {
    const auto month = QDate::fromString(text, "yyyy-MM");
    if (month.isValid()) day = month.addMonths(1).addDays(-1);
  }
  for (const auto format : {QLocale::ShortFormat, QLocale::LongFormat})
    if (!day.isValid()) day = QLocale().toDate(text, format);
  constexpr int firstYear = 1990, lastYear = 2200;
  if (!day.isValid() || day.year() < firstYear || day.year() > lastYear) return std::nullopt;
  return day;
}

} // namespace

DeliveryForm::DeliveryForm(LotEdits& edits, UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_edits(edits), m_units(units), m_title(new PlainLabel), m_bagUnit(new PlainLabel),
      m_densityName(new PlainLabel(tr("a litre weighs, kg"))), m_product(new QComboBox),
      m_keep(new QPushButton(tr("It came"))), m_offer(new QPushButton(tr("Only note the price"))),
      m_back(new QPushButton(tr("Back"))) {
  m_title->setFont(faceOf(16, true));
  m_title->setObjectName("deliveryTitle");
  m_product->setObjectName("lotProduct");
  m_product->setAccessibleName(tr("product"));
  m_product->setEditable(true);
  m_product->setInsertPolicy(QComboBox::NoInsert);
  m_product->completer()->setFilterMode(Qt::MatchContains);
  m_product->completer()->setCompletionMode(QCompleter::PopupCompletion);
  connect(m_product, &QComboBox::currentIndexChanged, this, &DeliveryForm::productChosen);
  m_bags = number(tr("number of bags"), "lotBags", 1, book::mostBagsOfLot);
  m_bag = number(tr("what is in a bag"), "lotBag", 0, mostBag);
  m_bag->asked = [this] { return AskedUnit{bagUnit().toStdString(), {}}; };
  m_density = number(tr("weight of a litre"), "lotDensity", 0.1, 5);
  m_price = number(tr("price of a bag"), "lotPrice", 0, mostPrice);
  m_lead = number(tr("days from order to delivery"), "lotLead", 0, 3650);
  m_currency = line(tr("currency"), "lotCurrency", tr("EUR, USD …"));
  m_mark = line(tr("lot number on the bag"), "lotMark", tr("as on the bag"));
  m_bought = line(tr("day it came"), "lotBought");
  m_supplier = line(tr("from whom"), "lotSupplier");
  m_place = line(tr("place on the farm"), "lotPlace");
  m_best = line(tr("best before"), "lotBest", tr("2027-05 or a day"));
  m_note = line(tr("note"), "lotNote");
  connect(m_keep, &QPushButton::clicked, this, [this] { keep(false); });
  connect(m_offer, &QPushButton::clicked, this, [this] { keep(true); });
  connect(m_back, &QPushButton::clicked, this, [this] { emit done({}); });
  m_keep->setObjectName("lotKeep");
  m_offer->setObjectName("lotOffer");
  m_back->setObjectName("lotBack");
  connect(&units, &UnitsShown::changed, this, &DeliveryForm::showUnits);
  layOut();
}

QLineEdit* DeliveryForm::line(const QString& name, const char* object, const QString& hint) {
  auto* made = new QLineEdit;
  made->setObjectName(object);
  made->setAccessibleName(name);
  made->setPlaceholderText(hint);
  made->setMaxLength(longestText);
  connect(made, &QLineEdit::returnPressed, this, [this] { keep(false); });
  return made;
}

NumberField* DeliveryForm::number(const QString& name, const char* object, double least, double most) {
  auto* made = new NumberField({.name = name, .unit = {}, .least = least, .most = most, .mayBeEmpty = true});
  made->setObjectName(object);
  made->onMessage = [this](const QString& words) { say(words); };
  connect(made, &QLineEdit::returnPressed, this, [this] { keep(false); });
  return made;
}

void DeliveryForm::layOut() {
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setVerticalSpacing(5);
  int row = 0;
  grid->addWidget(m_title, row++, 0, 1, 4);
  const auto add = [&](const QString& name, QWidget* field, int column, int columns = 1) {
    auto* label = new PlainLabel(name);
    label->setBuddy(field);
    grid->addWidget(label, row, column);
    grid->addWidget(field, row, column + 1, 1, columns);
  };
  add(tr("product"), m_product, 0, 3);
  ++row;
  add(tr("bags"), m_bags, 0);
  auto* bag = new QWidget;
  auto* inside = new QHBoxLayout(bag);
  inside->setContentsMargins(0, 0, 0, 0);
  inside->addWidget(m_bag, 1);
  inside->addWidget(m_bagUnit);
  add(tr("each holds"), bag, 2);
  ++row;
  add(tr("price of a bag"), m_price, 0);
  add(tr("currency"), m_currency, 2);
  ++row;
  add(tr("lot number"), m_mark, 0);
  add(tr("it came on"), m_bought, 2);
  ++row;
  add(tr("from"), m_supplier, 0);
  add(tr("comes in, days"), m_lead, 2);
  ++row;
  add(tr("place"), m_place, 0);
  add(tr("best before"), m_best, 2);
  ++row;
  add(tr("note"), m_note, 0);
  grid->addWidget(m_densityName, row, 2);
  grid->addWidget(m_density, row++, 3);
  auto* presses = new QHBoxLayout;
  for (auto* press : {m_keep, m_offer, m_back})
    presses->addWidget(press);
  presses->addStretch();
  grid->addLayout(presses, row++, 0, 1, 4);
  grid->setRowStretch(row, 1);
  grid->setColumnStretch(1, 1);
  grid->setColumnStretch(3, 1);
}

void DeliveryForm::begin(const std::string& product) {
  m_uid.clear();
  m_came = {};
  m_title->setText(tr("A delivery, or a price"));
  m_keep->setText(tr("It came"));
  m_offer->show();
  m_known = m_edits.buyables();
  const QSignalBlocker quiet(m_product);
  m_product->clear();
  for (const auto& one : m_known)
    m_product->addItem(one.name, qtext(one.id));
  m_product->setCurrentIndex(m_product->findData(qtext(product)));
  m_product->setEnabled(true);
  for (auto* field : {m_mark, m_note, m_best})
    field->clear();
  m_bought->setText(dateDigits(book::Moment::now()));
  productChosen();
  (product.empty() ? static_cast<QWidget*>(m_product) : m_bags)->setFocus();
}

void DeliveryForm::correct(const std::string& uid, const book::Lot& lot) {
  begin(lot.product);
  m_uid = uid;
  m_came = lot.bought;
  m_title->setText(tr("This lot, corrected"));
  m_keep->setText(tr("Keep"));
  m_offer->hide();
  m_product->setEnabled(false);
  show(lot);
  m_bags->show(QString::number(lot.bags));
  m_mark->setText(qtext(lot.mark));
  m_note->setText(qtext(lot.note));
  m_bought->setText(dateDigits(lot.bought));
  m_best->setText(lot.bestBefore ? dateDigits(*lot.bestBefore) : QString());
}

/// Liquids are bought by the litre or the gallon, the rest by weight.
QString DeliveryForm::bagUnit() const {
  const auto id = m_product->currentData().toString().toStdString();
  const auto known =
      std::find_if(m_known.begin(), m_known.end(), [&](const auto& one) { return one.id == id; });
  const bool isLiquid = known != m_known.end() && known->densityKgPerL;
  return isLiquid ? QString::fromStdString(m_units.measures().volumeUnit()) : m_units.bulkUnit();
}

/// What was typed stays what it is, in the unit chosen now.
void DeliveryForm::showUnits() {
  const auto unit = bagUnit();
  if (!m_bag->digits().isEmpty()) {
    const exchange::Amount typed{m_bag->digits().toStdString(), m_unitOfBag.toStdString()};
    m_bag->show(digitsIn(typed, unit));
  }
  m_unitOfBag = unit;
  m_bagUnit->setText(unit == m_units.bulkUnit() ? unit : m_units.volumeUnitName());
}

void DeliveryForm::productChosen() {
  const auto id = m_product->currentData().toString().toStdString();
  const auto known =
      std::find_if(m_known.begin(), m_known.end(), [&](const auto& one) { return one.id == id; });
  const bool isLiquid = known != m_known.end() && known->densityKgPerL;
  m_bag->show({});
  showUnits();
  m_density->setVisible(isLiquid);
  m_densityName->setVisible(isLiquid);
  if (isLiquid) m_density->show(QString::number(*known->densityKgPerL));
  const auto any = m_edits.lastOf({});
  m_currency->setText(any ? qtext(any->currency) : QLocale().currencySymbol(QLocale::CurrencyIsoCode));
  const auto last = id.empty() ? std::nullopt : m_edits.lastOf(id);
  if (last) return show(*last);
  for (auto* field : {m_bag, m_price, m_lead})
    field->show({});
  m_bags->show("1");
  m_supplier->clear();
  m_place->clear();
}

void DeliveryForm::show(const book::Lot& lot) {
  m_bags->show(QString::number(std::max(lot.bags, 1)));
  m_bag->show(digitsIn(lot.bag, bagUnit()));
  m_price->show(qtext(lot.bagPrice));
  m_currency->setText(qtext(lot.currency));
  m_supplier->setText(qtext(lot.supplier));
  m_place->setText(qtext(lot.place));
  m_lead->show(lot.leadDays ? QString::number(*lot.leadDays) : QString());
  if (!lot.densityKgPerL.empty()) m_density->show(qtext(lot.densityKgPerL));
}

bool DeliveryForm::readDate(const QLineEdit* field, std::optional<book::Moment>& at) {
  const auto text = field->text().trimmed();
  if (text.isEmpty()) return true;
  const auto day = dayIn(text);
  if (!day) {
    say(tr("%1: “%2” is no day; 2027-05-31 would be one.").arg(field->accessibleName(), text));
    return false;
  }
  at = book::Moment{day->startOfDay().toSecsSinceEpoch()};
  return true;
}

std::optional<book::Lot> DeliveryForm::typedLot(bool isOffer) {
  for (const auto* field : {m_bags, m_bag, m_density, m_price, m_lead})
    if (field->isWrong()) return say(field->message()), std::nullopt;
  const int at = m_product->findText(m_product->currentText().trimmed(), Qt::MatchFixedString);
  if (at < 0) {
    say(tr("No product is called “%1”: choose one of the list, or make it at the Formula station first.")
            .arg(m_product->currentText().trimmed()));
    return std::nullopt;
  }
  book::Lot lot;
  lot.product = m_product->itemData(at).toString().toStdString();
  lot.name = m_product->itemText(at).toStdString();
  lot.bags = isOffer ? 0 : std::max(1, m_bags->digits().toInt());
  if (m_bag->digits().isEmpty()) return say(tr("What is in a bag? Type its weight.")), std::nullopt;
  lot.bag = {m_bag->digits().toStdString(), bagUnit().toStdString()};
  lot.densityKgPerL = m_density->isVisibleTo(this) ? m_density->digits().toStdString() : std::string();
  lot.bagPrice = m_price->digits().toStdString();
  if (isOffer && lot.bagPrice.empty()) return say(tr("What does a bag cost? Type its price.")), std::nullopt;
  const auto text = [](const QLineEdit* field) { return field->text().trimmed().toStdString(); };
  lot.currency = text(m_currency);
  lot.mark = text(m_mark);
  lot.supplier = text(m_supplier);
  lot.place = text(m_place);
  lot.note = text(m_note);
  if (!m_lead->digits().isEmpty()) lot.leadDays = m_lead->digits().toInt();
  std::optional<book::Moment> bought = book::Moment::now();
  if (!readDate(m_bought, bought) || !readDate(m_best, lot.bestBefore)) return std::nullopt;
  // The day alone is typed: the hour stays what it was, and of today it is now.
  for (const auto& known : {m_came, book::Moment::now()})
    if (dateDigits(*bought) == dateDigits(known)) bought = known;
  lot.bought = *bought;
  return lot;
}

void DeliveryForm::keep(bool isOffer) {
  const auto lot = typedLot(isOffer);
  if (!lot) return;
  if (m_uid.empty()) {
    const auto kept = m_edits.keep(*lot);
    if (!kept) return say(problemWords(kept.problem()));
  } else if (const auto trouble = m_edits.change(m_uid, *lot)) {
    return say(problemWords(*trouble));
  }
  say(isOffer ? tr("Noted: what it would cost. Ctrl+Z takes it back.")
              : tr("On the shelf; Ctrl+Z takes it back."));
  emit done(qtext(lot->product));
}

} // namespace butte::app
