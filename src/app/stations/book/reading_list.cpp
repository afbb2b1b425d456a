#include "stations/book/reading_list.h"

#include "base/decimal.h"
#include "deed_words.h"
#include "document/book_desk.h"
#include "edits/record_edits.h"
#include "fields/number_field.h"
#include "language.h"
#include "measures.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "units/convert.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "words.h"

#include <QComboBox>
#include <QCompleter>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListView>
#include <QPushButton>
#include <QStringListModel>
#include <QVBoxLayout>

namespace butte::app {

namespace {
constexpr int readingsPage = 400;

/// The unit of the person's own for a quantity, as convert() names it; empty for pH.
std::string preferredUnit(std::string_view quantity) {
  const auto& measures = words::measures();
  return quantity == "ec"            ? measures.conductivityUnit()
         : quantity == "level"       ? measures.volumeUnit()
         : quantity == "temperature" ? measures.temperatureUnit()
                                     : std::string();
}

/// As it was typed, where that was in the person's unit; else turned into it.
QString readingText(const book::Reading& reading) {
  const auto unit = preferredUnit(reading.quantity);
  if (unit.empty() || reading.typed.ends_with(" " + words::unitName(unit))) return qtext(reading.typed);
  const auto& measures = words::measures();
  return qtext(reading.quantity == "ec"
                   ? measures.text(core::Conductivity::fromMilliSiemensPerCm(reading.value))
               : reading.quantity == "level" ? measures.text(core::Volume::fromLitres(reading.value))
                                             : measures.text(core::Temperature::fromCelsius(reading.value)));
}
} // namespace

void ReadingModel::reload() {
  beginResetModel();
  m_readings.clear();
  m_all = !m_desk.isOpen();
  endResetModel();
  if (!m_all) fetchMore({});
}

int ReadingModel::rowCount(const QModelIndex& parent) const {
  return parent.isValid() ? 0 : static_cast<int>(m_readings.size());
}

QVariant ReadingModel::data(const QModelIndex& index, int role) const {
  if (role != Qt::DisplayRole || !index.isValid()) return {};
  const auto& r = m_readings[static_cast<std::size_t>(index.row())];
  return QString("%1     %2     %3 %4%5")
      .arg(whenText(r.at), qtext(r.vesselName), qtext(words::quantityName(r.quantity)), readingText(r),
           r.importUid.empty() ? QString() : tr("     (brought in)"));
}

void ReadingModel::unitsChanged() {
  if (!m_readings.empty()) emit dataChanged(index(0), index(rowCount() - 1));
}

void ReadingModel::fetchMore(const QModelIndex&) {
  const auto page = m_desk.book().store().readings(
      m_readings.empty() ? std::nullopt : std::optional(m_readings.back()), readingsPage);
  m_all = !page || page->size() < readingsPage;
  if (!page || page->empty()) return;
  const int first = static_cast<int>(m_readings.size());
  beginInsertRows({}, first, first + static_cast<int>(page->size()) - 1);
  m_readings.insert(m_readings.end(), page->begin(), page->end());
  endInsertRows();
}

ReadingList::ReadingList(BookDesk& desk, QWidget* parent)
    : QWidget(parent), m_desk(desk), m_model(new ReadingModel(desk, this)), m_vessel(new QLineEdit),
      m_quantity(new QComboBox), m_unit(new QComboBox),
      m_value(new NumberField({tr("reading"), "", -50, 1e7, true})) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  auto* row = new FlowRow;
  m_vessel->setObjectName("readingVessel");
  m_vessel->setPlaceholderText(tr("vessel"));
  m_vessels = new QStringListModel(this);
  auto* known = new QCompleter(m_vessels, this);
  known->setCaseSensitivity(Qt::CaseInsensitive);
  m_vessel->setCompleter(known);
  m_value->setObjectName("readingValue");
  m_value->setFixedWidth(90);
  m_value->onMessage = [this](const QString& words) { emit message(words); };
  m_quantity->setObjectName("readingQuantity");
  m_unit->setObjectName("readingUnit");
  for (const auto& quantity : book::quantities())
    m_quantity->addItem(qtext(words::quantityName(std::string(quantity.code))));
  connect(m_quantity, &QComboBox::currentIndexChanged, this, &ReadingList::quantityChosen);
  quantityChosen();
  auto* keep = new QPushButton(tr("Keep this reading"));
  keep->setObjectName("keepReading");
  keep->setProperty("primary", true);
  connect(keep, &QPushButton::clicked, this, &ReadingList::keep);
  connect(m_value, &QLineEdit::returnPressed, this, &ReadingList::keep);
  row->addWidget(new PlainLabel(tr("Read now in")));
  row->addWidget(m_vessel);
  row->addWidget(m_quantity);
  row->addWidget(m_value);
  row->addWidget(m_unit);
  row->addWidget(keep);
  column->addLayout(row);
  auto* list = new QListView;
  list->setObjectName("readingList");
  list->setModel(m_model);
  list->setUniformItemSizes(true);
  column->addWidget(list, 1);
}

void ReadingList::quantityChosen() {
  m_unit->clear();
  for (const auto unit : chosen().typed)
    m_unit->addItem(qtext(words::unitName(std::string(unit))), qtext(std::string(unit)));
  m_unit->setCurrentIndex(std::max(0, m_unit->findData(qtext(preferredUnit(chosen().code)))));
}

void ReadingList::showUnits() {
  if (m_value->text().isEmpty()) quantityChosen(); // what is typed already keeps its unit
  m_model->unitsChanged();
}

const book::Quantity& ReadingList::chosen() const {
  return book::quantities()[static_cast<std::size_t>(std::max(0, m_quantity->currentIndex()))];
}

void ReadingList::reload() {
  m_model->reload();
  QStringList names;
  if (m_desk.isOpen()) {
    for (const auto& name : vesselNames(m_desk))
      names << qtext(name);
  }
  m_vessels->setStringList(names);
}

void ReadingList::keep() {
  const auto vessel = m_vessel->text().trimmed();
  if (vessel.isEmpty()) return emit message(tr("Name the vessel, as it is called on the farm."));
  if (m_value->digits().isEmpty() || m_value->isWrong())
    return emit message(tr("Type what the meter shows."));
  const auto digits = m_value->digits().toStdString();
  const auto& quantity = chosen();
  const auto unit = m_unit->currentData().toString().toStdString();
  const auto typed = core::parseDecimal(digits).value_or(0);
  const auto value =
      unit.empty() ? core::Result<double>(typed) : core::convert(typed, unit, std::string(quantity.unit));
  if (!value) return emit message(qtext(words::problemText(value.problem())));
  const std::string code(quantity.code);
  if (*value < quantity.least || *value > quantity.most)
    return emit message(qtext(
        words::problemText(core::problemAt(core::ProblemCode::OutsideLimits, code,
                                           {digits, core::decimalText(quantity.least),
                                            core::decimalText(quantity.most), std::string(quantity.unit)}))));
  if (const auto trouble = keepReading(m_desk, vessel.toStdString(), code, *value, {digits, unit}))
    return emit message(qtext(words::problemText(*trouble)));
  m_value->clear();
  m_value->setFocus();
  emit message(tr("Kept: %1, %2 %3 %4")
                   .arg(vessel, qtext(words::quantityName(code)), qtext(words::figureText(digits)),
                        m_unit->currentText()));
}

} // namespace butte::app
