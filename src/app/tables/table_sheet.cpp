#include "tables/table_sheet.h"

#include "book/tables/import_work.h"
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
#include <QProgressBar>
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
  const auto rows = std::min(table.rows.size(), rowsLookedAt);
  return {table.delimiter,
          table.mark,
          table.markUnclear,
          table.before,
          table.header,
          table.units,
          {table.rows.begin(), table.rows.begin() + static_cast<std::ptrdiff_t>(rows)}};
}

} // namespace

TableSheet::TableSheet(BookDesk& desk, QString name, reading::ForeignTable table,
                       reading::TableMapping proposed, QWidget* parent)
    : QDialog(parent), m_desk(desk), m_name(std::move(name)),
      m_table(std::make_shared<const reading::ForeignTable>(std::move(table))), m_sort(new QComboBox),
      m_dates(new QComboBox), m_comma(new QComboBox), m_datesWord(new PlainLabel),
      m_commaWord(new PlainLabel), m_nameWord(new PlainLabel), m_asks(new WrappedLabel),
      m_rows(new WrappedLabel), m_known(new WrappedLabel), m_nameForAll(new QLineEdit),
      m_columns(new ColumnHeads), m_take(new QPushButton), m_stop(new QPushButton(tr("Stop"))),
      m_progress(new QProgressBar) {
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
  column->addWidget(title);
  column->addWidget(makeQuestions());
  column->addWidget(m_known);
  column->addWidget(m_columns, 1);
  column->addWidget(m_asks);
  column->addWidget(m_rows);
  column->addLayout(makeButtons());
  connect(m_columns, &ColumnHeads::changed, this, &TableSheet::look);
  connect(&m_goOn, &QTimer::timeout, this, &TableSheet::goOn);
  auto known = PaperMemory(m_desk).mapping(*m_table);
  m_remembered = known.has_value();
  begin(known ? std::move(*known) : std::move(proposed));
}

QHBoxLayout* TableSheet::makeButtons() {
  m_take->setObjectName("takeRows");
  m_take->setProperty("primary", true);
  auto* back = new QPushButton(tr("Back"));
  back->setObjectName("leaveTable");
  m_stop->setObjectName("stopTaking");
  m_progress->setObjectName("takingProgress");
  m_progress->setAccessibleName(tr("how far the rows are taken"));
  auto* row = new QHBoxLayout;
  for (auto* widget : std::initializer_list<QWidget*>{m_take, back, m_stop})
    row->addWidget(widget);
  row->addWidget(m_progress, 1);
  row->addStretch();
  for (auto* widget : std::initializer_list<QWidget*>{m_stop, m_progress})
    widget->hide();
  connect(m_take, &QPushButton::clicked, this, &TableSheet::take);
  connect(m_stop, &QPushButton::clicked, this, &TableSheet::reject);
  connect(back, &QPushButton::clicked, this, &TableSheet::reject);
  return row;
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

void TableSheet::propose(TableOf wanted) {
  auto known = PaperMemory(m_desk).mapping(*m_table);
  m_remembered = known && known->table == wanted;
  begin(m_remembered ? std::move(*known) : reading::proposedMapping(*m_table, wanted));
}

void TableSheet::begin(reading::TableMapping proposed) {
  m_mapping = std::move(proposed);
  m_sort->setCurrentIndex(static_cast<int>(m_mapping.table));
  m_dates->setCurrentIndex(m_dates->findData(static_cast<int>(m_mapping.dates)));
  m_comma->setCurrentIndex(m_comma->findData(static_cast<int>(m_mapping.mark)));
  m_nameForAll->setText(qtext(m_mapping.nameForAll));
  m_columns->show(*m_table, m_mapping);
  look();
}

reading::TableMapping TableSheet::mapping() const {
  auto out = m_mapping;
  out.columns = m_columns->columns();
  out.columns.resize(m_table->header.size());
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
  const auto could = reading::openQuestions(*m_table, bare);
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
  const auto open = reading::openQuestions(*m_table, now);
  QStringList said;
  for (const auto question : open)
    said << qtext(words::mappingQuestionText(question, now.table));
  m_asks->setText(said.join('\n'));
  m_asks->setVisible(!said.isEmpty());
  const bool wide = m_table->header.size() > ColumnHeads::mostColumns;
  m_known->setText(m_remembered ? tr("Read as you answered for this header before.")
                   : wide       ? tr("Only its first %1 columns are looked at.").arg(ColumnHeads::mostColumns)
                                : QString());
  m_known->setVisible(m_remembered || wide);
  m_take->setEnabled(open.empty() && !m_desk.isReadOnly());
  m_take->setText(tr("Take the rows"));
  m_rows->setText({});
  if (!open.empty() || !m_desk.isOpen()) return;
  const bool whole = m_table->rows.size() <= rowsLookedAt;
  const auto plan = book::planImport(m_desk.book().store(), beginningOf(*m_table), now);
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
  if (m_table->rows.size() > rowsLookedAt) return takeBehind(now);
  auto plan = book::planImport(m_desk.book().store(), *m_table, now);
  if (!plan) return emit message(qtext(words::problemText(plan.problem())));
  if (plan->taken == 0) return;
  PaperMemory(m_desk).keep(m_name, *m_table, now);
  if (const auto trouble = book::import(m_desk.book(), *plan, m_name.toStdString()))
    return m_rows->setText(tr("Nothing was brought in.") + "\n" + qtext(words::problemText(*trouble)));
  end(plan->taken);
}

/// A long table: read behind the window's thread, looked at and written in it, a few rows between one
/// stroke of a hand and the next.
void TableSheet::takeBehind(const reading::TableMapping& now) {
  showWork(true);
  m_background.start<reading::PlainTable>([table = m_table, now] { return reading::plainTable(*table, now); },
                                          [this, now](reading::PlainTable plain) {
                                            if (!m_desk.isOpen()) return reject();
                                            m_work = std::make_unique<book::ImportWork>(
                                                m_desk.book(), std::move(plain), now, m_name.toStdString());
                                            m_goOn.start(0);
                                          });
}

void TableSheet::goOn() {
  using At = book::ImportWork::At;
  constexpr std::size_t rowsAtOnce = 500;
  const bool looked = m_work->at() == At::Looking;
  const auto trouble = m_work->go(rowsAtOnce);
  if (looked && m_work->at() == At::Writing) PaperMemory(m_desk).keep(m_name, *m_table, mapping());
  m_progress->setValue(m_work->percent());
  m_progress->setFormat(m_work->at() == At::Looking ? tr("looking at the rows: %p %")
                                                    : tr("writing them into the book: %p %"));
  m_stop->setEnabled(m_work->at() == At::Looking);
  if (trouble) {
    showWork(false);
    return m_rows->setText(tr("Nothing was brought in.") + "\n" + qtext(words::problemText(*trouble)));
  }
  if (m_work->at() != At::Done) return;
  const auto rows = m_work->taken();
  showWork(false);
  if (rows == 0) return m_rows->setText(tr("None of the rows could be taken; the book stays as it is."));
  end(rows);
}

void TableSheet::showWork(bool on) {
  m_goOn.stop();
  m_work.reset();
  m_progress->setValue(0);
  m_progress->setFormat(tr("reading the rows"));
  m_stop->setEnabled(true);
  for (auto* widget : std::initializer_list<QWidget*>{m_stop, m_progress})
    widget->setVisible(on);
  for (auto* widget :
       std::initializer_list<QWidget*>{m_take, m_columns, m_sort, m_dates, m_comma, m_nameForAll})
    widget->setEnabled(!on);
}

void TableSheet::end(std::size_t rows) {
  emit taken(rows);
  accept();
}

void TableSheet::reject() {
  if (m_work && m_work->at() == book::ImportWork::At::Writing) return;
  if (m_stop->isHidden()) return QDialog::reject();
  m_background.cancel();
  showWork(false);
  look();
}

} // namespace butte::app
