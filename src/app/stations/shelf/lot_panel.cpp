#include "stations/shelf/lot_panel.h"

#include "base/decimal.h"
#include "fields/number_field.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "services/units_shown.h"
#include "wording/record_words.h"
#include "wording/shelf_words.h"
#include "wording/tr.h"

#include <QComboBox>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>
#include <array>

namespace butte::app {

using book::ShelfDid;

namespace {
constexpr std::array tellings{
    std::pair{ShelfDid::Counted, QT_TRANSLATE_NOOP("butte", "so much is left of it")},
    std::pair{ShelfDid::Wasted, QT_TRANSLATE_NOOP("butte", "thrown away, spilled")},
    std::pair{ShelfDid::Opened, QT_TRANSLATE_NOOP("butte", "a bag was opened")},
    std::pair{ShelfDid::Dried, QT_TRANSLATE_NOOP("butte", "a sample was dried")}};
constexpr double mostSacks = 1e6;
} // namespace

LotPanel::LotPanel(LotEdits& edits, UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_edits(edits), m_units(units), m_title(new PlainLabel), m_facts(new WrappedLabel),
      m_damp(new WrappedLabel), m_lots(new QListWidget), m_history(new QListWidget), m_did(new QComboBox),
      m_unit(new PlainLabel), m_text(new QLineEdit), m_log(new QPushButton(tr("Log it"))),
      m_scale(new QPushButton(tr("From the scale"))), m_strike(new QPushButton(tr("This line into the bin"))),
      m_delivery(new QPushButton(tr("Delivery or price…"))),
      m_correct(new QPushButton(tr("Correct this lot…"))),
      m_strikeLot(new QPushButton(tr("This lot into the bin"))) {
  m_title->setFont(faceOf(16, true));
  m_title->setObjectName("lotTitle");
  m_facts->setObjectName("lotFacts");
  m_damp->setObjectName("lotDamp");
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(5);
  column->addWidget(m_title);
  column->addWidget(m_facts);
  column->addWidget(makeLots(), 3);
  column->addWidget(m_damp);
  m_telling = makeTelling();
  column->addWidget(m_telling);
  m_history->setObjectName("lotHistory");
  m_history->setAccessibleName(tr("what was done to this lot"));
  m_history->setWordWrap(true);
  m_history->setMinimumHeight(46);
  m_history->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Ignored);
  m_history->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  column->addWidget(m_history, 2);
  m_strike->setObjectName("lotStrikeLine");
  connect(m_strike, &QPushButton::clicked, this, &LotPanel::strikeLine);
  connect(m_history, &QListWidget::currentRowChanged, this,
          [this](int row) { m_strike->setEnabled(row >= 0); });
  column->addWidget(m_strike, 0, Qt::AlignLeft);
}

QWidget* LotPanel::makeLots() {
  auto* box = new QWidget;
  auto* column = new QVBoxLayout(box);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  m_lots->setObjectName("lots");
  m_lots->setAccessibleName(tr("lots of this product"));
  m_lots->setWordWrap(true);
  m_lots->setMinimumHeight(70);
  m_lots->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Ignored);
  m_lots->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  connect(m_lots, &QListWidget::currentRowChanged, this, &LotPanel::lotChosen);
  auto* presses = new FlowRow;
  m_delivery->setObjectName("lotDelivery");
  m_correct->setObjectName("lotCorrect");
  m_strikeLot->setObjectName("lotStrike");
  for (auto* press : {m_delivery, m_correct, m_strikeLot})
    presses->addWidget(press);
  connect(m_delivery, &QPushButton::clicked, this, &LotPanel::deliveryAsked);
  connect(m_correct, &QPushButton::clicked, this, [this] {
    if (!m_lot.empty()) emit correctionAsked(qtext(m_lot));
  });
  connect(m_strikeLot, &QPushButton::clicked, this, &LotPanel::strikeLot);
  column->addWidget(m_lots, 1);
  column->addLayout(presses);
  return box;
}

QWidget* LotPanel::makeTelling() {
  auto* box = new QWidget;
  auto* column = new QVBoxLayout(box);
  column->setContentsMargins(0, 0, 0, 0);
  auto* row = new FlowRow;
  m_did->setObjectName("lotDid");
  m_did->setAccessibleName(tr("what was done"));
  for (const auto& [did, words] : tellings)
    m_did->addItem(app::tr(words));
  connect(m_did, &QComboBox::currentIndexChanged, this, &LotPanel::didChosen);
  const auto field = [&](const QString& name, const char* object) {
    auto* made =
        new NumberField({.name = name, .unit = {}, .least = 0, .most = mostSacks, .mayBeEmpty = true});
    made->setObjectName(object);
    made->setFixedWidth(74);
    made->asked = [this] {
      const bool sample = tellings[static_cast<std::size_t>(m_did->currentIndex())].first == ShelfDid::Dried;
      return AskedUnit{sample ? "g" : m_units.bulkUnit().toStdString(), {}};
    };
    made->onMessage = [this](const QString& words) { emit message(words); };
    connect(made, &QLineEdit::returnPressed, this, &LotPanel::tell);
    return made;
  };
  m_amount = field(tr("how much"), "lotAmount");
  m_dried = field(tr("the sample dry"), "lotDried");
  m_sealed = field(tr("sample of a sealed bag"), "lotSealed");
  m_sealedDried = field(tr("that sample dry"), "lotSealedDried");
  m_scale->setObjectName("lotFromScale");
  m_scale->setToolTip(
      tr("Put the bag on the scale: what it shows, at rest, is what is left. Tare an empty bag first."));
  connect(m_scale, &QPushButton::clicked, this, &LotPanel::takeFromScale);
  m_text->setObjectName("lotText");
  m_text->setAccessibleName(tr("in words"));
  m_text->setPlaceholderText(tr("in your words"));
  m_text->setMaxLength(500);
  connect(m_text, &QLineEdit::returnPressed, this, &LotPanel::tell);
  m_log->setObjectName("lotLog");
  connect(m_log, &QPushButton::clicked, this, &LotPanel::tell);
  row->addWidget(m_did);
  row->addTogether({m_amount, m_unit, m_scale});
  row->addWidget(m_text);
  row->addWidget(m_log);
  column->addLayout(row);
  m_sample = new QWidget;
  auto* sample = new FlowRow(m_sample);
  sample->addTogether({new PlainLabel(tr("dry")), m_dried, new PlainLabel(tr("g"))});
  sample->addTogether({new PlainLabel(tr("sealed bag's sample")), m_sealed, new PlainLabel(tr("g"))});
  sample->addTogether({new PlainLabel(tr("dry")), m_sealedDried, new PlainLabel(tr("g"))});
  column->addWidget(m_sample);
  return box;
}

void LotPanel::show(const SharedShelfStory& story, const std::string& product, bool readOnly) {
  m_story = story;
  m_product = product;
  const auto* outlook = m_story->of(product);
  for (auto* press : {m_delivery, m_correct, m_strikeLot, m_log, m_scale})
    press->setEnabled(!readOnly);
  const QSignalBlocker quiet(m_lots);
  m_lots->clear();
  m_shown.clear();
  if (!outlook) {
    m_title->setText(tr("Nothing on the shelf yet"));
    m_facts->setText(
        tr("Tell the first delivery: what came, how many bags, what a bag holds and cost. From then on "
           "batches take what they weigh out of the bags, the oldest first, and the shelf says how many "
           "weeks each product does, and what to buy by when."));
    m_telling->hide();
    m_history->clear();
    m_damp->hide();
    return;
  }
  m_title->setText(qtext(outlook->name));
  m_facts->setText(outlook->lots.empty()
                       ? tr("Batches use it; no delivery of it was told. %1.").arg(useText(*outlook, m_units))
                       : tr("%1 left · does %2 · used: %3; ahead: %4")
                             .arg(sackText(outlook->left, m_units), lastsText(*outlook),
                                  useText(*outlook, m_units), needFromText(outlook->need.from)));
  // What is open or closed still in front, the newest first; then what is used up.
  m_shown.assign(outlook->lots.rbegin(), outlook->lots.rend());
  std::stable_partition(m_shown.begin(), m_shown.end(), [&](std::size_t lot) {
    return m_story->account.lots[lot].left > core::Mass::fromGrams(1);
  });
  int current = 0;
  for (std::size_t i = 0; i < m_shown.size(); ++i) {
    m_lots->addItem(lotText(*m_story, m_shown[i], m_units));
    if (m_story->shelf.lots[m_shown[i]].first == m_lot) current = static_cast<int>(i);
  }
  m_lots->setCurrentRow(m_shown.empty() ? -1 : current);
  lotChosen();
}

std::optional<std::size_t> LotPanel::chosenLot() const {
  const int row = m_lots->currentRow();
  return row < 0 ? std::nullopt : std::optional(m_shown[static_cast<std::size_t>(row)]);
}

void LotPanel::lotChosen() {
  const auto lot = chosenLot();
  m_telling->setVisible(lot.has_value());
  m_history->clear();
  m_lines.clear();
  m_strike->setEnabled(false);
  m_lot = lot ? m_story->shelf.lots[*lot].first : std::string();
  const auto damp = lot ? dampText(*m_story, *lot) : QString();
  m_damp->setText(damp);
  m_damp->setVisible(!damp.isEmpty());
  for (const auto* line : lot ? m_story->linesOf(m_lot) : decltype(m_story->linesOf(m_lot))()) {
    m_lines.push_back(line->first);
    m_history->addItem(tr("%1  %2").arg(whenText(line->second.at), shelfLineText(line->second, m_units)));
  }
  m_strike->setVisible(!m_lines.empty());
  m_history->setVisible(!m_lines.empty());
  didChosen();
}

void LotPanel::didChosen() {
  const auto did = tellings[static_cast<std::size_t>(m_did->currentIndex())].first;
  m_amount->parentWidget()->setVisible(did != ShelfDid::Opened);
  m_sample->setVisible(did == ShelfDid::Dried);
  m_scale->setVisible(did == ShelfDid::Counted);
  m_unit->setText(did == ShelfDid::Dried ? tr("g") : m_units.bulkUnit());
}

exchange::Amount LotPanel::typed(const NumberField* field) const {
  const auto digits = field->digits().toStdString();
  if (digits.empty()) return {};
  const bool sample = tellings[static_cast<std::size_t>(m_did->currentIndex())].first == ShelfDid::Dried;
  return {digits, sample ? "g" : m_units.bulkUnit().toStdString()};
}

void LotPanel::tell() {
  if (m_lot.empty()) return;
  for (const auto* field : {m_amount, m_dried, m_sealed, m_sealedDried})
    if (field->isWrong()) return emit message(field->message());
  book::ShelfLine line;
  line.lotUid = m_lot;
  line.did = tellings[static_cast<std::size_t>(m_did->currentIndex())].first;
  line.text = m_text->text().trimmed().toStdString();
  if (line.did != ShelfDid::Opened) line.amount = typed(m_amount);
  if (line.did != ShelfDid::Opened && line.amount.isEmpty())
    return emit message(tr("How much is it? Type its weight beside what was done."));
  if (line.did == ShelfDid::Dried) {
    line.dried = typed(m_dried);
    line.sealed = typed(m_sealed);
    line.sealedDried = typed(m_sealedDried);
    if (line.dried.isEmpty()) return emit message(tr("What did the sample weigh once it was dry?"));
    if (line.sealed.isEmpty() != line.sealedDried.isEmpty())
      return emit message(tr("Of the sealed bag's sample both weights are needed, or none."));
  }
  if (const auto trouble = m_edits.tell(line)) return said(trouble, {});
  for (auto* field : {m_amount, m_dried, m_sealed, m_sealedDried})
    field->show({});
  m_text->clear();
  said({}, tr("Told; Ctrl+Z takes it back."));
}

void LotPanel::takeFromScale() {
  const auto shown = scaleShows ? scaleShows() : std::nullopt;
  if (!shown)
    return emit message(
        tr("No scale shows a weight at rest. Connect one at the Bench, or type what it shows."));
  m_amount->show(QString::number(m_units.measures().inBulk(*shown), 'g', 8));
  m_amount->setFocus();
}

void LotPanel::strikeLine() {
  const int row = m_history->currentRow();
  if (row < 0) return;
  const auto what = m_history->item(row)->text();
  said(m_edits.strike({book::Kind::ShelfLine, m_lines[static_cast<std::size_t>(row)]}, what),
       tr("In the bin: %1; Ctrl+Z brings it back.").arg(what));
}

void LotPanel::strikeLot() {
  const int row = m_lots->currentRow();
  if (row < 0) return;
  const auto what = m_lots->item(row)->text();
  said(m_edits.strike({book::Kind::Lot, m_lot}, what),
       tr("In the bin: %1; Ctrl+Z brings it back.").arg(what));
}

void LotPanel::said(const book::Trouble& trouble, const QString& done) {
  emit message(trouble ? problemWords(*trouble) : done);
}

} // namespace butte::app
