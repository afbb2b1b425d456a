#include "tables/table_sheet.h"

#include "book/tables/tables.h"
#include "column_words.h"
#include "document/book_desk.h"
#include "edits/paper_memory.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "tables/column_heads.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "words.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>

namespace butte::app {

using reading::DateOrder;
using reading::DecimalMark;
using reading::MappingQuestion;
using reading::TableOf;

namespace {

/// So many rows are looked at while columns are chosen; all of them when they are taken.
constexpr std::size_t rowsLookedAt = 400;
constexpr int rowsSaid = 4;

reading::ForeignTable beginningOf(const reading::ForeignTable& table) {
  auto out = table;
  if (out.rows.size() > rowsLookedAt) out.rows.resize(rowsLookedAt);
  return out;
}

} // namespace

TableSheet::TableSheet(BookDesk& desk, QString name, reading::ForeignTable table, QWidget* parent)
    : QDialog(parent), m_desk(desk), m_name(std::move(name)), m_table(std::move(table)),
      m_sort(new QComboBox), m_dates(new QComboBox), m_comma(new QComboBox), m_datesWord(new PlainLabel),
      m_commaWord(new PlainLabel), m_nameWord(new PlainLabel), m_asks(new WrappedLabel),
      m_rows(new WrappedLabel), m_known(new WrappedLabel), m_nameForAll(new QLineEdit),
      m_columns(new ColumnHeads), m_take(new QPushButton) {
  setObjectName("tableSheet");
  setAttribute(Qt::WA_DeleteOnClose);
  setWindowTitle(tr("Bring in %1").arg(m_name));
  resize(1120, 640);
  auto* column = new QVBoxLayout(this);
  auto* title = new WrappedLabel(tr("What each column is taken for stands above it; change it there. Nothing "
                                    "is written before you take the rows."));
  title->setFont(faceOf(15, true));
  m_known->setObjectName("tableKnown");
  m_known->setProperty("soft", true);
  m_asks->setObjectName("tableAsks");
  m_rows->setObjectName("tableRows");
  m_take->setObjectName("takeRows");
  m_take->setProperty("primary", true);
  auto* back = new QPushButton(tr("Back"));
  back->setObjectName("leaveTable");
  auto* row = new QHBoxLayout;
  row->addWidget(m_take);
  row->addWidget(back);
  row->addStretch();
  column->addWidget(title);
  column->addWidget(makeQuestions());
  column->addWidget(m_known);
  column->addWidget(m_columns, 1);
  column->addWidget(m_asks);
  column->addWidget(m_rows);
  column->addLayout(row);
  connect(m_columns, &ColumnHeads::changed, this, &TableSheet::look);
  connect(m_take, &QPushButton::clicked, this, &TableSheet::take);
  connect(back, &QPushButton::clicked, this, &QDialog::reject);
  propose({});
}

TableSheet::~TableSheet() = default;

QWidget* TableSheet::makeQuestions() {
  auto* box = new QWidget;
  auto* row = new QHBoxLayout(box);
  row->setContentsMargins(0, 0, 0, 0);
  m_sort->setObjectName("tableSort");
  m_sort->setAccessibleName(tr("what the table is of"));
  for (int i = 0; i < reading::tableOfCount; ++i)
    m_sort->addItem(qtext(words::tableOfText(static_cast<TableOf>(i))), i);
  m_dates->setObjectName("tableDates");
  m_datesWord->setText(tr("3/4 is"));
  m_datesWord->setBuddy(m_dates);
  m_dates->addItem(tr("not said yet"), static_cast<int>(DateOrder::Unknown));
  m_dates->addItem(tr("3 April (day first)"), static_cast<int>(DateOrder::DayFirst));
  m_dates->addItem(tr("4 March (month first)"), static_cast<int>(DateOrder::MonthFirst));
  m_comma->setObjectName("tableComma");
  m_commaWord->setText(tr("1,250 is"));
  m_commaWord->setBuddy(m_comma);
  m_comma->addItem(tr("not said yet"), static_cast<int>(DecimalMark::Unknown));
  m_comma->addItem(tr("more than a thousand"), static_cast<int>(DecimalMark::Point));
  m_comma->addItem(tr("one and a quarter"), static_cast<int>(DecimalMark::Comma));
  m_nameForAll->setObjectName("tableName");
  m_nameWord->setBuddy(m_nameForAll);
  row->addWidget(new PlainLabel(tr("These are")));
  row->addWidget(m_sort);
  for (auto* widget :
       std::initializer_list<QWidget*>{m_nameWord, m_nameForAll, m_datesWord, m_dates, m_commaWord, m_comma})
    row->addWidget(widget);
  row->addStretch();
  connect(m_sort, &QComboBox::activated, this, [this](int index) { propose(static_cast<TableOf>(index)); });
  connect(m_dates, &QComboBox::activated, this, &TableSheet::look);
  connect(m_comma, &QComboBox::activated, this, &TableSheet::look);
  connect(m_nameForAll, &QLineEdit::textEdited, this, &TableSheet::look);
  return box;
}

void TableSheet::propose(std::optional<TableOf> wanted) {
  auto known = PaperMemory(m_desk).mapping(m_table);
  m_remembered = known && (!wanted || known->table == *wanted);
  m_mapping = m_remembered ? *known : reading::proposedMapping(m_table, wanted);
  m_sort->setCurrentIndex(static_cast<int>(m_mapping.table));
  m_dates->setCurrentIndex(m_dates->findData(static_cast<int>(m_mapping.dates)));
  m_comma->setCurrentIndex(m_comma->findData(static_cast<int>(m_mapping.mark)));
  m_nameForAll->setText(qtext(m_mapping.nameForAll));
  m_columns->show(m_table, m_mapping);
  look();
}

reading::TableMapping TableSheet::mapping() const {
  auto out = m_mapping;
  out.columns = m_columns->columns();
  out.columns.resize(m_table.header.size());
  out.dates = static_cast<DateOrder>(m_dates->currentData().toInt());
  out.mark = static_cast<DecimalMark>(m_comma->currentData().toInt());
  out.nameForAll = m_nameForAll->isHidden() ? std::string() : m_nameForAll->text().trimmed().toStdString();
  return out;
}

/// What is asked, and what would become of the rows, as one chooses.
void TableSheet::look() {
  auto now = mapping();
  auto bare = now;
  bare.nameForAll.clear();
  bare.dates = DateOrder::Unknown;
  bare.mark = DecimalMark::Unknown;
  const auto could = reading::openQuestions(m_table, bare);
  const auto asks = [&](MappingQuestion q) { return std::count(could.begin(), could.end(), q) > 0; };
  m_nameWord->setText(now.table == TableOf::Readings ? tr("of the vessel")
                      : now.table == TableOf::Waters ? tr("of the water")
                                                     : tr("all of"));
  for (auto* widget : std::initializer_list<QWidget*>{m_nameWord, m_nameForAll})
    widget->setVisible(asks(MappingQuestion::NoName));
  for (auto* widget : std::initializer_list<QWidget*>{m_datesWord, m_dates})
    widget->setVisible(asks(MappingQuestion::DayOrMonth));
  for (auto* widget : std::initializer_list<QWidget*>{m_commaWord, m_comma})
    widget->setVisible(asks(MappingQuestion::WhatComma));
  now = mapping();
  const auto open = reading::openQuestions(m_table, now);
  QStringList said;
  for (const auto question : open)
    said << qtext(words::mappingQuestionText(question, now.table));
  m_asks->setText(said.join('\n'));
  m_asks->setVisible(!said.isEmpty());
  const bool wide = m_table.header.size() > ColumnHeads::mostColumns;
  m_known->setText(m_remembered ? tr("Read as you answered for this header before.")
                   : wide       ? tr("Only its first %1 columns are looked at.").arg(ColumnHeads::mostColumns)
                                : QString());
  m_known->setVisible(m_remembered || wide);
  m_take->setEnabled(open.empty() && !m_desk.isReadOnly());
  m_take->setText(tr("Take the rows"));
  m_rows->setText({});
  if (!open.empty() || !m_desk.isOpen()) return;
  const bool whole = m_table.rows.size() <= rowsLookedAt;
  const auto plan = book::planImport(m_desk.book().store(), beginningOf(m_table), now);
  if (!plan) return m_rows->setText(qtext(words::problemText(plan.problem())));
  m_rows->setText(saidOf(*plan, whole));
  m_take->setEnabled(m_take->isEnabled() && plan->taken > 0);
  if (whole) m_take->setText(counted(plan->taken, tr("Take %1 row"), tr("Take %1 rows")));
}

QString TableSheet::saidOf(const book::ImportPlan& plan, bool whole) const {
  QStringList lines{
      (whole ? tr("Rows that would be taken: %1, that would not: %2.")
             : tr("Of the first rows, taken would be %1, not taken %2; all are looked at when you "
                  "take them."))
          .arg(plan.taken)
          .arg(plan.rows.size() - plan.taken)};
  for (const bool wanted : {false, true}) {
    int shown = 0;
    for (const auto& row : plan.rows) {
      if (row.taken != wanted || ++shown > rowsSaid) continue;
      lines << (wanted ? tr("row %1: %2") : tr("row %1, not taken: %2"))
                   .arg(row.line)
                   .arg(qtext(words::rowText(row.saying)));
    }
    if (shown > rowsSaid) lines << tr("… and %1 more").arg(shown - rowsSaid);
  }
  return lines.join('\n');
}

void TableSheet::take() {
  const auto now = mapping();
  auto plan = book::planImport(m_desk.book().store(), m_table, now);
  if (!plan) return emit message(qtext(words::problemText(plan.problem())));
  if (plan->taken == 0) return;
  PaperMemory(m_desk).keep(m_name, m_table, now);
  if (const auto trouble = book::import(m_desk.book(), *plan, m_name.toStdString()))
    return m_rows->setText(tr("Nothing was brought in.") + "\n" + qtext(words::problemText(*trouble)));
  emit taken(plan->taken);
  accept();
}

} // namespace butte::app
