#include "stations/formula/product_list.h"

#include "base/decimal.h"
#include "document/book_desk.h"
#include "document/formula_editor.h"
#include "edits/formula_edits.h"
#include "edits/keep_and_use.h"
#include "edits/shelf_edits.h"
#include "fields/filling_combo.h"
#include "fields/number_field.h"
#include "paint/plain_label.h"
#include "paint/steady_room.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "product/catalogue.h"
#include "services/units_shown.h"
#include "stations/formula/product_row.h"
#include "units/convert.h"
#include "wording/tr.h"
#include "words.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>
#include <cstring>

namespace butte::app {

namespace {
constexpr const char* ownMark = "book:"; // before the uid of a product of the book
}

ProductList::ProductList(FormulaEditor& editor, UnitsShown& units, BookDesk& desk, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_units(units), m_desk(desk), m_choice(new FillingCombo),
      m_batch(new NumberField({tr("feed volume that the weights are for"), "", 0.001, 1e9})),
      m_batchUnit(new PlainLabel), m_total(new WrappedLabel) {
  auto* title = new PlainLabel(tr("Shelf"));
  title->setFont(faceOf(15, true));
  m_batch->setObjectName("batch");
  m_batch->setFixedWidth(70);
  m_batch->onTyped = [this](const QString& digits) { batchTyped(digits); };
  m_batch->asked = [this] { return AskedUnit{m_units.volumeUnit().toStdString(), {}}; };
  m_batch->onMessage = [this](const QString& words) { emit message(words); };
  auto* head = new QHBoxLayout;
  head->addWidget(title);
  head->addStretch();
  head->addWidget(new PlainLabel(tr("weights for")));
  head->addWidget(m_batch);
  head->addWidget(m_batchUnit);
  head->addWidget(new PlainLabel(tr("of feed")));

  auto* rows = new QWidget;
  m_rowsLayout = new QVBoxLayout(rows);
  m_rowsLayout->setContentsMargins(0, 0, 4, 0);
  m_rowsLayout->setSpacing(4);
  m_rowsLayout->addStretch();
  auto* scroll = new QScrollArea;
  scroll->setWidget(rows);
  scroll->setWidgetResizable(true);
  scroll->setFrameShape(QFrame::NoFrame);
  scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);

  m_choice->setObjectName("addProduct");
  m_choice->setAccessibleName(tr("put a product on the shelf"));
  m_choice->setMaxVisibleItems(24);
  m_choice->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
  m_choice->fill = [this] { fillChoice(); };
  fillChoice();
  connect(m_choice, &QComboBox::activated, this, &ProductList::addChosen);
  auto* own = new QPushButton(tr("Own product…"));
  own->setObjectName("ownProduct");
  own->setToolTip(tr("Type a product in by its label or its formula"));
  connect(own, &QPushButton::clicked, this, &ProductList::newProductAsked);
  auto* foot = new QHBoxLayout;
  foot->addWidget(m_choice, 1);
  foot->addWidget(own);

  m_total->setProperty("soft", true);
  m_total->setObjectName("shelfTotal");
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(6);
  column->addLayout(head);
  column->addWidget(scroll, 1);
  column->addWidget(new SteadyRoom(m_total));
  column->addLayout(foot);
  connect(&editor, &FormulaEditor::changed, this, &ProductList::refresh);
  connect(&editor, &FormulaEditor::overlayChanged, this, &ProductList::refresh);
  connect(&units, &UnitsShown::changed, this, &ProductList::refresh);
  refresh();
}

/// The book's own products first: they are what stands in the store.
void ProductList::fillChoice() {
  m_choice->clear();
  m_choice->addItem(tr("Put on the shelf…"));
  if (m_desk.isOpen()) {
    if (const auto own = m_desk.book().store().list(book::Kind::Product, false)) {
      for (const auto& head : *own)
        m_choice->addItem(tr("%1 (own)").arg(QString::fromStdString(head.name)),
                          ownMark + QString::fromStdString(head.ref.uid));
      if (!own->empty()) m_choice->insertSeparator(m_choice->count());
    }
  }
  for (const auto& p : core::catalogue())
    m_choice->addItem(QString::fromStdString(p.shortName), QString::fromStdString(p.id));
}

void ProductList::refresh() {
  bool same = m_rows.size() == m_editor.document().products.size();
  for (std::size_t i = 0; same && i < m_rows.size(); ++i)
    same = m_rows[i]->id() == m_editor.document().products[i].id;
  if (!same) rebuildRows();
  for (auto* row : m_rows)
    row->refresh();
  const auto batch = FormulaEdits(m_editor).batch();
  const auto volume = m_editor.document().given.request.volume;
  const bool ownUnit = QString::fromStdString(batch.unit) == m_units.volumeUnit();
  m_batch->show(QString::fromStdString(ownUnit ? batch.digits : words::digits(m_units.volumeIn(volume))));
  m_batchUnit->setText(m_units.volumeUnitName());
  showTotal();
}

/// What it weighs and costs together, or which prices are wanting for that.
void ProductList::showTotal() {
  if (m_rows.empty()) {
    m_total->setToolTip("");
    return m_total->setText(tr("The shelf is empty: put products on it below."));
  }
  const auto& answer = m_editor.answer();
  const auto& shelf = m_editor.document().given.request.shelf;
  core::Mass total;
  QStringList without;
  for (std::size_t i = 0; i < answer.solution.grams.size(); ++i) {
    total = total + answer.solution.grams[i];
    if (answer.solution.grams[i] > core::Mass{} && i < shelf.size() && !shelf[i].pricePerKg)
      without << QString::fromStdString(m_editor.nameOf(shelf[i].id));
  }
  QString cost;
  if (without.isEmpty() && answer.feed.cost) cost = tr("costs %1").arg(localFigure(*answer.feed.cost));
  if (without.size() == 1) cost = tr("no price: %1").arg(without.first());
  if (without.size() > 1) cost = tr("no price: %1 and %2 more").arg(without.first()).arg(without.size() - 1);
  m_total->setText(tr("together %1").arg(m_units.text(total)) + (cost.isEmpty() ? QString() : " · " + cost));
  m_total->setToolTip(
      tr("A typed weight is held.") +
      (without.isEmpty() ? QString() : "\n" + tr("No price yet: %1").arg(without.join(", "))));
}

void ProductList::rebuildRows() {
  for (auto* row : m_rows)
    row->deleteLater();
  m_rows.clear();
  for (const auto& product : m_editor.document().products) {
    auto* row = new ProductRow(m_editor, m_units, product.id, this);
    m_rowsLayout->insertWidget(m_rowsLayout->count() - 1, row);
    connect(row, &ProductRow::lit, this, &ProductList::lit);
    connect(row, &ProductRow::detailsAsked, this, &ProductList::detailsAsked);
    connect(row, &ProductRow::message, this, &ProductList::message);
    m_rows.push_back(row);
  }
}

void ProductList::light(const std::string& id) {
  for (auto* row : m_rows)
    row->setLit(!id.empty() && row->id() == id);
}

void ProductList::addChosen() {
  const auto id = m_choice->currentData().toString().toStdString();
  const auto name = m_choice->currentText();
  m_choice->setCurrentIndex(0);
  if (id.empty()) return;
  if (id.starts_with(ownMark)) {
    const auto words = useInFormula(m_desk, m_editor, {book::Kind::Product, id.substr(std::strlen(ownMark))});
    if (!words.isEmpty()) emit message(words);
    return;
  }
  const bool there = m_editor.indexOf(id) >= 0;
  ShelfEdits(m_editor).add(id, name);
  if (there) emit message(tr("%1 is on the shelf already; it is switched on.").arg(name));
}

void ProductList::batchTyped(const QString& digits) {
  FormulaEdits(m_editor).setBatch(typed(digits, m_units.volumeUnit()));
}

} // namespace butte::app
