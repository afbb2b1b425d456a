#include "stations/book/batch_filter_row.h"

#include "base/decimal.h"
#include "document/book_desk.h"
#include "fields/number_field.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>

namespace butte::app {

BatchFilterRow::BatchFilterRow(BookDesk& desk, QWidget* parent)
    : QWidget(parent), m_desk(desk), m_crop(new QComboBox), m_since(new QComboBox), m_product(new QLineEdit),
      m_lot(new QLineEdit), m_off(new NumberField({tr("off plan by at least"), "%", 0, 1000, true})),
      m_clear(new QPushButton(tr("× stretch"))), m_count(new PlainLabel) {
  auto* row = new FlowRow(this);
  m_crop->setObjectName("filterCrop");
  m_crop->setAccessibleName(tr("crop"));
  m_since->setObjectName("filterSince");
  m_since->setAccessibleName(tr("since when"));
  for (const auto& [text, days] : {std::pair{tr("any time"), 0},
                                   {tr("last 30 days"), 30},
                                   {tr("last 90 days"), 90},
                                   {tr("last year"), 365}})
    m_since->addItem(text, days);
  m_product->setObjectName("filterProduct");
  m_product->setAccessibleName(tr("product in the batch"));
  m_product->setPlaceholderText(tr("product"));
  m_lot->setObjectName("filterLot");
  m_lot->setAccessibleName(tr("lot in the batch"));
  m_lot->setPlaceholderText(tr("lot"));
  m_off->setObjectName("filterOff");
  m_off->setPlaceholderText(tr("any"));
  m_off->setFixedWidth(54);
  m_off->onTyped = [this](const QString&) { m_typing.start(); };
  m_off->onMessage = [this](const QString& words) { emit message(words); };
  m_count->setObjectName("batchCount");
  m_clear->setObjectName("clearStretch");
  m_clear->setToolTip(tr("Show all again, not only the marked stretch of time"));
  m_clear->hide();
  m_typing.setSingleShot(true);
  m_typing.setInterval(120);
  connect(&m_typing, &QTimer::timeout, this, &BatchFilterRow::typed);
  for (auto* box : {m_crop, m_since})
    connect(box, &QComboBox::activated, this, &BatchFilterRow::typed);
  for (auto* field : {m_product, m_lot})
    connect(field, &QLineEdit::textEdited, this, [this] { m_typing.start(); });
  connect(m_clear, &QPushButton::clicked, this, &BatchFilterRow::typed);
  row->addWidget(m_crop);
  row->addWidget(m_since);
  row->addWidget(m_product);
  row->addWidget(m_lot);
  row->addTogether({new PlainLabel(tr("off plan ≥")), m_off, new PlainLabel("%")});
  row->addWidget(m_clear);
  row->addWidget(m_count);
}

void BatchFilterRow::typed() {
  m_stretch.reset();
  m_clear->hide();
  emit changed();
  count();
}

void BatchFilterRow::setStretch(book::Moment from, book::Moment before) {
  m_stretch = {from, before};
  m_clear->show();
  count();
}

void BatchFilterRow::refreshCrops() {
  const auto crop = m_crop->currentData().toString();
  m_crop->clear();
  m_crop->addItem(tr("all crops"), "");
  if (const auto crops = m_desk.book().store().cropsOfBatches()) {
    for (const auto& name : *crops)
      m_crop->addItem(qtext(name), qtext(name));
  }
  m_crop->setCurrentIndex(std::max(0, m_crop->findData(crop)));
  count();
}

void BatchFilterRow::count() {
  const auto found = m_desk.book().store().batchCount(filter());
  m_count->setText(counted(found ? *found : 0, tr("%1 batch"), tr("%1 batches")));
}

book::BatchFilter BatchFilterRow::filter() const {
  book::BatchFilter filter;
  filter.crop = m_crop->currentData().toString().toStdString();
  filter.product = m_product->text().trimmed().toStdString();
  filter.lot = m_lot->text().trimmed().toStdString();
  if (const int days = m_since->currentData().toInt(); days > 0)
    filter.from = book::Moment{book::Moment::now().seconds - days * 86400LL};
  if (const auto off = core::parseDecimal(m_off->digits().toStdString())) filter.deviationAtLeast = *off;
  if (m_stretch) {
    filter.from = m_stretch->first;
    filter.before = m_stretch->second;
  }
  return filter;
}

} // namespace butte::app
