#include "tables/column_heads.h"

#include "column_words.h"
#include "paint/theme.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QComboBox>
#include <QHeaderView>
#include <algorithm>

namespace butte::app {

using reading::ColumnMeaning;
using reading::TableMapping;

namespace {

constexpr int fieldRow = 0, unitRow = 1, titleRow = 2, firstRow = 3;
constexpr std::size_t rowsShown = 40;

} // namespace

ColumnHeads::ColumnHeads(QWidget* parent) : QTableWidget(parent) {
  setObjectName("tableColumns");
  setEditTriggers(NoEditTriggers);
  setSelectionMode(NoSelection);
  setTabKeyNavigation(false);
  horizontalHeader()->hide();
  verticalHeader()->hide();
  setVerticalScrollMode(ScrollPerPixel);
  setHorizontalScrollMode(ScrollPerPixel);
  setAccessibleName(tr("the table, and above each column what it holds"));
}

void ColumnHeads::show(const reading::ForeignTable& table, const TableMapping& mapping) {
  clear();
  const auto shown = std::min(table.rows.size(), rowsShown);
  const auto width = std::min(table.header.size(), mostColumns);
  setRowCount(firstRow + static_cast<int>(shown));
  setColumnCount(static_cast<int>(width));
  const auto put = [&](int row, std::size_t column, const std::string& text) {
    auto* item = new QTableWidgetItem(qtext(text));
    if (row == titleRow) item->setFont(faceOf(13, true));
    setItem(row, static_cast<int>(column), item);
  };
  for (std::size_t column = 0; column < width; ++column) {
    const bool unit = column < table.units.size() && !table.units[column].empty();
    put(titleRow, column, table.header[column] + (unit ? " · " + table.units[column] : ""));
    for (std::size_t row = 0; row < shown; ++row) {
      const auto& cells = table.rows[row].cells;
      put(firstRow + static_cast<int>(row), column, column < cells.size() ? cells[column] : "");
    }
  }
  showMapping(mapping);
}

void ColumnHeads::showMapping(const TableMapping& mapping) {
  m_table = mapping.table;
  m_columns = mapping.columns;
  for (auto i = mostColumns; i < m_columns.size(); ++i)
    m_columns[i] = {}; // nothing is taken that does not show
  m_turns.assign(m_columns.size(), 0);
  for (int column = 0; column < columnCount(); ++column)
    makeHead(column);
  resizeColumnsToContents();
  for (int column = 0; column < columnCount(); ++column)
    setColumnWidth(column, std::clamp(columnWidth(column), 120, 260));
}

QComboBox* ColumnHeads::fieldBox(int column) const {
  return qobject_cast<QComboBox*>(cellWidget(fieldRow, column));
}
QComboBox* ColumnHeads::unitBox(int column) const {
  return qobject_cast<QComboBox*>(cellWidget(unitRow, column));
}

void ColumnHeads::makeHead(int column) {
  const auto title = item(titleRow, column)->text();
  auto* field = new QComboBox;
  field->setObjectName(QString("column%1").arg(column));
  field->setAccessibleName(tr("what “%1” holds").arg(title));
  field->setMaxVisibleItems(24);
  field->addItem(tr("passed over"), "");
  for (const auto& one : reading::fieldsOf(m_table))
    field->addItem(qtext(words::fieldText(m_table, one.column)), qtext(one.column));
  field->setCurrentIndex(
      std::max(0, field->findData(qtext(m_columns[static_cast<std::size_t>(column)].field))));
  setCellWidget(fieldRow, column, field);
  auto* unit = new QComboBox;
  unit->setObjectName(QString("columnUnit%1").arg(column));
  unit->setAccessibleName(tr("in what “%1” is stated").arg(title));
  setCellWidget(unitRow, column, unit);
  fillUnits(column);
  mark(column);
  connect(field, &QComboBox::activated, this, [this, column] { chooseField(column); });
  connect(unit, &QComboBox::activated, this, [this, column] { chooseUnit(column); });
}

void ColumnHeads::fillUnits(int column) {
  auto* box = unitBox(column);
  const auto& meaning = m_columns[static_cast<std::size_t>(column)];
  const auto* field = reading::fieldNamed(m_table, meaning.field);
  box->clear();
  if (field) {
    for (const auto& unit : reading::unitsOf(*field)) {
      const double per = unit == meaning.unit ? meaning.per : 1;
      box->addItem(qtext(words::columnUnitText(*field, unit, per)), qtext(unit));
    }
    box->setCurrentIndex(std::max(0, box->findData(qtext(meaning.unit))));
  }
  box->setEnabled(box->count() > 1);
  // A column without a unit has nothing there: the table itself keeps its cells' widgets in sight.
  box->setStyleSheet("QComboBox { border: none; background: transparent; } "
                     "QComboBox::drop-down, QComboBox::down-arrow { width: 0; border: none; image: none; }");
  if (box->count() > 0) box->setStyleSheet({});
}

/// What is a guess stands out until it was looked at; what is passed over is dimmed.
void ColumnHeads::mark(int column) {
  const auto& meaning = m_columns[static_cast<std::size_t>(column)];
  const auto& t = theme();
  fieldBox(column)->setProperty("asks", !meaning.sure);
  fieldBox(column)->setToolTip(meaning.sure ? QString() : tr("a guess: look at it, or choose"));
  fieldBox(column)->setStyleSheet({});
  if (!meaning.sure)
    fieldBox(column)->setStyleSheet("QComboBox { background: " + t.amberFill.name(QColor::HexRgb) + "; }");
  for (int row = titleRow; row < rowCount(); ++row) {
    if (auto* cell = item(row, column)) cell->setForeground(meaning.field.empty() ? t.inkSoft : t.ink);
  }
}

void ColumnHeads::chooseField(int column) {
  auto& meaning = m_columns[static_cast<std::size_t>(column)];
  const auto chosen = fieldBox(column)->currentData().toString().toStdString();
  const auto* field = reading::fieldNamed(m_table, chosen);
  meaning = {chosen, field && !reading::unitsOf(*field).empty() ? field->unit : std::string(), 1, true};
  fillUnits(column);
  mark(column);
  m_turns[static_cast<std::size_t>(column)] = ++m_turn;
  showFreed();
  emit changed();
}

bool ColumnHeads::isFreed(std::size_t column) const {
  for (std::size_t other = 0; other < m_columns.size(); ++other) {
    if (other != column && m_columns[other].field == m_columns[column].field &&
        m_turns[other] > m_turns[column])
      return true;
  }
  return false;
}

std::vector<ColumnMeaning> ColumnHeads::columns() const {
  auto out = m_columns;
  for (std::size_t i = 0; i < out.size(); ++i) {
    if (!out[i].field.empty() && isFreed(i)) out[i] = {};
  }
  return out;
}

/// A column whose meaning another has taken is passed over, until the other is taken for something else: a
/// hand that goes through a list with the arrows leaves nothing changed behind it.
void ColumnHeads::showFreed() {
  for (int column = 0; column < columnCount(); ++column) {
    const auto at = static_cast<std::size_t>(column);
    const bool freed = !m_columns[at].field.empty() && isFreed(at);
    auto* box = fieldBox(column);
    box->setCurrentIndex(freed ? 0 : std::max(0, box->findData(qtext(m_columns[at].field))));
    unitBox(column)->setEnabled(!freed && unitBox(column)->count() > 1);
    mark(column);
  }
}

void ColumnHeads::chooseUnit(int column) {
  auto& meaning = m_columns[static_cast<std::size_t>(column)];
  const auto unit = unitBox(column)->currentData().toString().toStdString();
  if (unit != meaning.unit) meaning.per = 1;
  meaning.unit = unit;
  meaning.sure = true;
  mark(column);
  emit changed();
}

} // namespace butte::app
