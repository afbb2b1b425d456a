#include "stations/formula/product_list.h"

#include "base/decimal.h"
#include "document/formula_editor.h"
#include "edits/formula_edits.h"
#include "edits/shelf_edits.h"
#include "fields/number_field.h"
#include "paint/plain_label.h"
#include "paint/steady_room.h"
#include "paint/theme.h"
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

namespace butte::app {

ProductList::ProductList(FormulaEditor& editor, UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_units(units), m_choice(new QComboBox),
      m_batch(new NumberField({tr("feed volume that the weights are for"), "", 0.001, 1e9})),
      m_batchUnit(new PlainLabel), m_total(new PlainLabel) {
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

void ProductList::fillChoice() {
  m_choice->addItem(tr("Put on the shelf…"));
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
  core::Mass total;
  for (const auto& g : m_editor.answer().solution.grams)
    total = total + g;
  m_total->setText(m_rows.empty() ? tr("The shelf is empty: put products on it below.")
                                  : tr("together %1 · a typed weight is held").arg(m_units.text(total)));
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
  const bool there = m_editor.indexOf(id) >= 0;
  ShelfEdits(m_editor).add(id, name);
  if (there) emit message(tr("%1 is on the shelf already; it is switched on.").arg(name));
}

void ProductList::batchTyped(const QString& digits) {
  FormulaEdits(m_editor).setBatch(typed(digits, m_units.volumeUnit()));
}

} // namespace butte::app
