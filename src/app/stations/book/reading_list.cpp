#include "stations/book/reading_list.h"

#include "base/decimal.h"
#include "deed_words.h"
#include "document/book_desk.h"
#include "edits/record_edits.h"
#include "fields/number_field.h"
#include "language.h"
#include "measures.h"
#include "paint/fitted_text.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "stations/book/reading_picture.h"
#include "units/convert.h"
#include "wording/reading_words.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "words.h"

#include <QComboBox>
#include <QCompleter>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListView>
#include <QPainter>
#include <QPushButton>
#include <QStringListModel>
#include <QStyledItemDelegate>
#include <QVBoxLayout>

namespace butte::app {

namespace {
constexpr int readingsPage = 400;

/// A reading as a row of columns that stand below each other.
class ReadingRow : public QStyledItemDelegate {
public:
  ReadingRow(const ReadingModel& model, QObject* parent) : QStyledItemDelegate(parent), m_model(model) {}

  QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex&) const override {
    return {100, option.fontMetrics.height() + 4};
  }

  void paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
    const auto& r = m_model.at(index.row());
    const auto& t = theme();
    const bool chosen = option.state & QStyle::State_Selected;
    p->fillRect(option.rect, chosen ? t.accent : t.card);
    p->setFont(faceOf(13));
    const auto metrics = p->fontMetrics();
    int x = option.rect.left() + 6;
    const auto put = [&](const QString& text, int width, const QColor& ink) {
      p->setPen(chosen ? t.accentInk : ink);
      p->drawText(QRect(x, option.rect.top(), width, option.rect.height()), Qt::AlignVCenter | Qt::AlignLeft,
                  fittedText(metrics, text, width));
      x += width + 12;
    };
    // The vessel's name gives way where the list is narrow; figures never do.
    const int letter = metrics.averageCharWidth(), gaps = 4 * 12;
    const int when = std::max(letter * 16, metrics.horizontalAdvance(whenText(r.at)));
    const auto name = qtext(words::quantityName(r.quantity));
    const bool narrow = option.rect.width() < letter * 70; // then what belongs together stands together
    const int quantity = narrow ? metrics.horizontalAdvance(name) : letter * 12;
    const int reading = metrics.horizontalAdvance(readingText(r));
    const int value = narrow ? reading : std::max(letter * 15, reading);
    const int vessel =
        std::clamp(option.rect.width() - when - quantity - value - gaps, letter * 8, letter * 22);
    put(whenText(r.at), when, t.inkSoft);
    put(qtext(r.vesselName), vessel, t.ink);
    put(name, quantity, t.inkSoft);
    put(readingText(r), value, t.ink);
    const bool room = option.rect.right() - x > letter * 12;
    if (!r.importUid.empty() && room) put(tr("brought in"), metrics.averageCharWidth() * 14, t.inkSoft);
  }

private:
  const ReadingModel& m_model;
};

} // namespace

void ReadingModel::reload() {
  beginResetModel();
  m_readings.clear();
  m_all = !m_desk.isOpen();
  endResetModel();
  if (!m_all) fetchMore({});
}

void ReadingModel::show(const book::ReadingFilter& filter) {
  m_filter = filter;
  reload();
}

int ReadingModel::rowBefore(const std::string& vesselUid, book::Moment before) {
  constexpr int mostPages = 60; // some 24,000 readings back
  for (int i = 0, pages = 0;; ++i) {
    if (i == rowCount()) {
      if (m_all || ++pages > mostPages) return -1;
      fetchMore({});
      if (i == rowCount()) return -1;
    }
    if (at(i).at < before && at(i).vesselUid == vesselUid) return i;
  }
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
      m_readings.empty() ? std::nullopt : std::optional(m_readings.back()), readingsPage, m_filter);
  m_all = !page || page->size() < readingsPage;
  if (!page || page->empty()) return;
  const int first = static_cast<int>(m_readings.size());
  beginInsertRows({}, first, first + static_cast<int>(page->size()) - 1);
  m_readings.insert(m_readings.end(), page->begin(), page->end());
  endInsertRows();
}

ReadingList::ReadingList(BookDesk& desk, QWidget* parent)
    : QWidget(parent), m_desk(desk), m_model(new ReadingModel(desk, this)), m_vessel(new QLineEdit),
      m_quantity(new QComboBox), m_unit(new QComboBox), m_ofVessel(new QComboBox),
      m_ofQuantity(new QComboBox), m_value(new NumberField({tr("reading"), "", -50, 1e7, true})),
      m_right(new NumberField({tr("corrected reading"), "", -50, 1e7, false})),
      m_picture(new ReadingPicture(desk)), m_list(new QListView), m_which(new PlainLabel),
      m_rightUnit(new PlainLabel) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->addWidget(makeKeepRow());
  column->addWidget(makeFilterRow());
  column->addWidget(m_picture);
  m_list->setObjectName("readingList");
  m_list->setModel(m_model);
  m_list->setItemDelegate(new ReadingRow(*m_model, this));
  m_list->setUniformItemSizes(true);
  column->addWidget(m_list, 1);
  column->addWidget(makeCorrectRow());
  connect(m_list->selectionModel(), &QItemSelectionModel::currentChanged, this, [this] { selected(); });
  connect(m_model, &QAbstractItemModel::modelReset, this, &ReadingList::selected);
  connect(m_picture, &ReadingPicture::explained, this, &ReadingList::message);
  connect(m_picture, &ReadingPicture::chosen, this, [this](const std::string& vessel, book::Moment before) {
    const int row = m_model->rowBefore(vessel, before);
    if (row >= 0) m_list->setCurrentIndex(m_model->index(row));
  });
  selected();
}

/// A reading just taken.
QWidget* ReadingList::makeKeepRow() {
  auto* box = new QWidget;
  auto* row = new FlowRow(box);
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
  return box;
}

/// Of which vessel and quantity picture and list are.
QWidget* ReadingList::makeFilterRow() {
  auto* box = new QWidget;
  auto* row = new FlowRow(box);
  m_ofVessel->setObjectName("readingsOfVessel");
  m_ofVessel->setAccessibleName(tr("readings of which vessel"));
  m_ofVessel->addItem(tr("all vessels"), QString());
  m_ofQuantity->setObjectName("readingsOfQuantity");
  m_ofQuantity->setAccessibleName(tr("readings of which quantity"));
  for (const auto& quantity : book::quantities())
    m_ofQuantity->addItem(qtext(words::quantityName(std::string(quantity.code))),
                          qtext(std::string(quantity.code)));
  m_ofQuantity->addItem(tr("EC (the list shows everything)"), QString());
  m_ofQuantity->setCurrentIndex(m_ofQuantity->count() - 1);
  connect(m_ofVessel, &QComboBox::activated, this, &ReadingList::filter);
  connect(m_ofQuantity, &QComboBox::activated, this, &ReadingList::filter);
  row->addWidget(new PlainLabel(tr("Shown:")));
  row->addWidget(m_ofVessel);
  row->addWidget(m_ofQuantity);
  return box;
}

/// What was misread or mistyped is put right where it is seen.
QWidget* ReadingList::makeCorrectRow() {
  m_correctRow = new QWidget;
  auto* row = new FlowRow(m_correctRow);
  m_which->setObjectName("readingChosen");
  m_right->setObjectName("readingRight");
  m_right->setFixedWidth(90);
  m_right->asked = [this] {
    return AskedUnit{m_chosen ? preferredUnit(m_chosen->quantity) : std::string(), {}};
  };
  m_right->onMessage = [this](const QString& words) { emit message(words); };
  auto* right = new QPushButton(tr("Correct it"));
  right->setObjectName("correctReading");
  connect(right, &QPushButton::clicked, this, &ReadingList::correct);
  connect(m_right, &QLineEdit::returnPressed, this, &ReadingList::correct);
  auto* bin = new QPushButton(tr("Into the bin"));
  bin->setObjectName("binReading");
  connect(bin, &QPushButton::clicked, this, &ReadingList::toBin);
  row->addWidget(m_which);
  row->addTogether({new PlainLabel(tr("should be")), m_right, m_rightUnit});
  row->addWidget(right);
  row->addWidget(bin);
  return m_correctRow;
}

void ReadingList::filter() {
  book::ReadingFilter filter;
  filter.vesselUid = m_ofVessel->currentData().toString().toStdString();
  filter.quantity = m_ofQuantity->currentData().toString().toStdString();
  m_model->show(filter);
  if (filter.quantity.empty()) filter.quantity = book::quantities().front().code;
  m_picture->show(filter);
}

void ReadingList::fillVessels() {
  QStringList names;
  const auto before = m_ofVessel->currentData();
  m_ofVessel->clear();
  m_ofVessel->addItem(tr("all vessels"), QString());
  if (m_desk.isOpen()) {
    if (const auto heads = m_desk.book().store().list(book::Kind::Vessel, false)) {
      for (const auto& head : *heads) {
        names << qtext(head.name);
        m_ofVessel->addItem(qtext(head.name), qtext(head.ref.uid));
      }
    }
  }
  m_ofVessel->setCurrentIndex(std::max(0, m_ofVessel->findData(before)));
  m_vessels->setStringList(names);
}

void ReadingList::selected() {
  const auto index = m_list->currentIndex();
  m_chosen.reset();
  if (index.isValid()) m_chosen = m_model->at(index.row());
  m_correctRow->setVisible(m_chosen.has_value() && !m_desk.isReadOnly());
  if (!m_chosen) return;
  const auto unit = preferredUnit(m_chosen->quantity);
  m_which->setText(tr("%1, %2, %3 %4")
                       .arg(whenText(m_chosen->at), qtext(m_chosen->vesselName),
                            qtext(words::quantityName(m_chosen->quantity)), readingText(*m_chosen)));
  m_rightUnit->setText(qtext(words::unitName(unit)));
  m_right->show(QString::number(readingIn(m_chosen->quantity, m_chosen->value), 'g', 6));
}

void ReadingList::correct() {
  if (!m_chosen || m_right->isWrong()) return;
  const auto* quantity = book::quantityFrom(m_chosen->quantity);
  const auto unit = preferredUnit(m_chosen->quantity);
  const auto digits = m_right->digits().toStdString();
  if (!quantity || digits.empty()) return;
  const auto value = keptValue(*quantity, digits, unit);
  if (!value) return emit message(qtext(words::problemText(value.problem())));
  const auto words = m_which->text();
  if (const auto trouble = correctReading(m_desk, *m_chosen, *value, {digits, unit}))
    return emit message(qtext(words::problemText(*trouble)));
  emit message(tr("Corrected: %1 is now %2; Ctrl+Z takes it back.")
                   .arg(words, readingValueText(quantity->code, *value)));
}

void ReadingList::toBin() {
  if (!m_chosen) return;
  const auto words = m_which->text();
  if (const auto trouble = binReading(m_desk, *m_chosen, words.toStdString()))
    return emit message(qtext(words::problemText(*trouble)));
  emit message(tr("In the bin: %1; Ctrl+Z brings it back.").arg(words));
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
  filter();
}

const book::Quantity& ReadingList::chosen() const {
  return book::quantities()[static_cast<std::size_t>(std::max(0, m_quantity->currentIndex()))];
}

void ReadingList::reload() {
  const auto chosen = m_chosen;
  fillVessels();
  filter();
  // The one that was just corrected stays in hand.
  for (int row = 0; chosen && row < m_model->rowCount(); ++row) {
    if (m_model->at(row).number == chosen->number) return m_list->setCurrentIndex(m_model->index(row));
  }
}

void ReadingList::keep() {
  const auto vessel = m_vessel->text().trimmed();
  if (vessel.isEmpty()) return emit message(tr("Name the vessel, as it is called on the farm."));
  if (m_value->digits().isEmpty() || m_value->isWrong())
    return emit message(tr("Type what the meter shows."));
  const auto digits = m_value->digits().toStdString();
  const auto& quantity = chosen();
  const auto unit = m_unit->currentData().toString().toStdString();
  const auto value = keptValue(quantity, digits, unit);
  if (!value) return emit message(qtext(words::problemText(value.problem())));
  const std::string code(quantity.code);
  if (const auto trouble = keepReading(m_desk, vessel.toStdString(), code, *value, {digits, unit}))
    return emit message(qtext(words::problemText(*trouble)));
  m_value->clear();
  m_value->setFocus();
  emit message(tr("Kept: %1, %2 %3 %4")
                   .arg(vessel, qtext(words::quantityName(code)), qtext(words::figureText(digits)),
                        m_unit->currentText()));
}

} // namespace butte::app
