#include "stations/book/reading_list.h"

#include "base/decimal.h"
#include "document/book_desk.h"
#include "edits/record_edits.h"
#include "fields/number_field.h"
#include "units/convert.h"
#include "wording/record_words.h"
#include "words.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListView>
#include <QPushButton>
#include <QVBoxLayout>

namespace butte::app {

namespace {
constexpr int pageRows = 400;

/// Quantity, its name, the units that it may be typed in; the first is the book's own.
struct Quantity {
  const char *code, *name;
  QStringList units;
};
const std::vector<Quantity>& quantities() {
  static const std::vector<Quantity> all{{"ec", "EC", {"mS/cm", "uS/cm", "ppm500", "ppm640", "ppm700"}},
                                         {"ph", "pH", {""}},
                                         {"level", "level", {"L", "gal_us", "gal_imp"}},
                                         {"temperature", "temperature", {"C", "F"}}};
  return all;
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
  const auto name = r.quantity == "ec"   ? QString("EC")
                    : r.quantity == "ph" ? QString("pH")
                                         : qtext(r.quantity);
  return QString("%1     %2     %3 %4%5")
      .arg(whenText(r.at), qtext(r.tank), name, qtext(r.typed),
           r.importUid.empty() ? QString() : QString("     (brought in)"));
}

void ReadingModel::fetchMore(const QModelIndex&) {
  const auto page = m_desk.book().store().readings(
      m_readings.empty() ? std::nullopt : std::optional(m_readings.back()), pageRows);
  m_all = !page || page->size() < pageRows;
  if (!page || page->empty()) return;
  const int first = static_cast<int>(m_readings.size());
  beginInsertRows({}, first, first + static_cast<int>(page->size()) - 1);
  m_readings.insert(m_readings.end(), page->begin(), page->end());
  endInsertRows();
}

ReadingList::ReadingList(BookDesk& desk, QWidget* parent)
    : QWidget(parent), m_desk(desk), m_model(new ReadingModel(desk, this)), m_tank(new QLineEdit),
      m_quantity(new QComboBox), m_unit(new QComboBox),
      m_value(new NumberField({"reading", "", -50, 1e7, true})) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  auto* row = new QHBoxLayout;
  m_tank->setObjectName("readingTank");
  m_tank->setPlaceholderText("tank");
  m_value->setObjectName("readingValue");
  m_value->setFixedWidth(90);
  m_value->onMessage = [this](const QString& words) { emit message(words); };
  m_quantity->setObjectName("readingQuantity");
  m_unit->setObjectName("readingUnit");
  for (const auto& quantity : quantities())
    m_quantity->addItem(quantity.name);
  connect(m_quantity, &QComboBox::currentIndexChanged, this, &ReadingList::quantityChosen);
  quantityChosen();
  auto* keep = new QPushButton("Keep this reading");
  keep->setObjectName("keepReading");
  keep->setProperty("primary", true);
  connect(keep, &QPushButton::clicked, this, &ReadingList::keep);
  connect(m_value, &QLineEdit::returnPressed, this, &ReadingList::keep);
  row->addWidget(new QLabel("Read now in"));
  row->addWidget(m_tank, 1);
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
  m_unit->addItems(quantities()[static_cast<std::size_t>(m_quantity->currentIndex())].units);
}

void ReadingList::reload() {
  m_model->reload();
}

void ReadingList::keep() {
  const auto tank = m_tank->text().trimmed();
  if (tank.isEmpty()) return emit message("Name the tank, as it is called on the farm.");
  if (m_value->text().isEmpty() || m_value->isWrong()) return emit message("Type what the meter shows.");
  const auto digits = core::normalisedDecimal(m_value->text().toStdString());
  const auto& quantity = quantities()[static_cast<std::size_t>(m_quantity->currentIndex())];
  const auto unit = m_unit->currentText().toStdString();
  const auto typed = core::parseDecimal(digits).value_or(0);
  const auto value = unit.empty() ? core::Result<double>(typed)
                                  : core::convert(typed, unit, quantity.units.front().toStdString());
  if (!value) return emit message(qtext(words::problemText(value.problem())));
  if (quantity.code == std::string("ph") && (*value < 0 || *value > 14))
    return emit message("A pH lies between 0 and 14.");
  if (const auto trouble = keepReading(m_desk, tank.toStdString(), quantity.code, *value, {digits, unit}))
    return emit message(qtext(words::problemText(*trouble)));
  m_value->clear();
  m_value->setFocus();
  emit message(QString("Kept: %1, %2 %3 %4").arg(tank, quantity.name, qtext(digits), qtext(unit)));
}

} // namespace butte::app
