#include "stations/stocks/stocks_page.h"

#include "document/book_desk.h"
#include "document/formula_editor.h"
#include "edits/mixing_edits.h"
#include "edits/stock_edits.h"
#include "fields/filling_combo.h"
#include "paint/flow_row.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "refresh/while_seen.h"
#include "services/units_shown.h"
#include "stations/stocks/cold_panel.h"
#include "stations/stocks/direct_panel.h"
#include "stations/stocks/levels_panel.h"
#include "stations/stocks/making_panel.h"
#include "stations/stocks/reading_panel.h"
#include "stations/stocks/strength_bar.h"
#include "stations/stocks/strength_ruler.h"
#include "stations/stocks/supply_panel.h"
#include "stations/stocks/tank_card.h"
#include "stations/stocks/vessel_dose_panel.h"
#include "stations/stocks/way_panel.h"
#include "stock_words.h"
#include "wording/tr.h"

#include <QButtonGroup>
#include <QHBoxLayout>
#include <QLabel>
#include <QStackedWidget>
#include <QToolButton>
#include <QVBoxLayout>
#include <cmath>

namespace butte::app {

StocksPage::StocksPage(FormulaEditor& editor, UnitsShown& units, BookDesk& desk, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_units(units), m_desk(desk), m_ruler(new StrengthRuler) {
  // It has the window's whole width when it is seen; behind the others it must not widen the window.
  setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(6);
  m_direct = new DirectPanel(editor, units);
  connect(m_direct, &DirectPanel::message, this, &StocksPage::message);
  m_ways = new QStackedWidget;
  m_ways->addWidget(makeTanks());
  m_ways->addWidget(m_direct);
  column->addWidget(makeWays());
  column->addWidget(m_ways, 1);
  auto* fresh = new WhileSeen(this, [this] { refresh(); });
  connect(&editor, &FormulaEditor::changed, fresh, &WhileSeen::outdate);
  connect(&units, &UnitsShown::changed, fresh, &WhileSeen::outdate);
  connect(&m_desk, &BookDesk::changed, fresh, [this, fresh](const std::vector<book::Ref>& refs) {
    const auto& beside = m_editor.document().dosing.besideUid;
    if (std::any_of(refs.begin(), refs.end(), [&](const auto& ref) { return ref.uid == beside; }))
      fresh->outdate();
  });
  makeCards();
  fresh->outdate();
}

QWidget* StocksPage::makeWays() {
  auto* box = new QWidget;
  auto* row = new QHBoxLayout(box);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(4);
  m_wayButtons = new QButtonGroup(this);
  const QString names[] = {tr("Through stock tanks"), tr("Straight into a vessel")};
  for (int i = 0; i < 2; ++i) {
    auto* button = new QToolButton;
    button->setText(names[i]);
    button->setCheckable(true);
    button->setObjectName(i == 0 ? "wayStocks" : "wayDirect");
    m_wayButtons->addButton(button, i);
    row->addWidget(button);
  }
  connect(m_wayButtons, &QButtonGroup::idClicked, this,
          [this](int way) { MixingEdits(m_editor).setDirect(way == 1); });
  row->addStretch();
  return box;
}

QWidget* StocksPage::makeTanks() {
  auto* box = new QWidget;
  auto* column = new QVBoxLayout(box);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(6);
  m_strength = new StrengthBar(m_editor, m_units);
  connect(m_strength, &StrengthBar::message, this, &StocksPage::message);
  column->addWidget(m_strength);
  column->addWidget(m_ruler);
  m_cardRow = new QHBoxLayout;
  m_cardRow->setSpacing(8);
  column->addLayout(m_cardRow, 5);
  m_apart = new WrappedLabel;
  m_apart->setObjectName("apart");
  m_apart->setFont(faceOf(12));
  m_besideText = new WrappedLabel;
  m_besideText->setObjectName("besideText");
  m_besideText->setTextFormat(Qt::RichText);
  m_besideText->setFont(faceOf(12));
  column->addWidget(m_apart);
  column->addWidget(m_besideText);
  column->addWidget(makeParts(), 4);
  connect(m_ruler, &StrengthRuler::factorMoved, m_strength, &StrengthBar::setFactor);
  return box;
}

QWidget* StocksPage::makeParts() {
  auto* box = new QWidget;
  auto* column = new QVBoxLayout(box);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(6);
  auto* bar = new FlowRow(nullptr, 4);
  m_partButtons = new QButtonGroup(this);
  m_parts = new QStackedWidget;
  auto* making = new MakingPanel(m_editor, m_units);
  connect(making, &MakingPanel::labelsAsked, this, &StocksPage::labelsAsked);
  const std::pair<const char*, StockPanel*> parts[] = {
      {QT_TRANSLATE_NOOP("butte", "Way to the tap"), new WayPanel(m_editor, m_units)},
      {QT_TRANSLATE_NOOP("butte", "Cold nights"), new ColdPanel(m_editor, m_units)},
      {QT_TRANSLATE_NOOP("butte", "Making them"), making},
      {QT_TRANSLATE_NOOP("butte", "How long"), new SupplyPanel(m_editor, m_units)},
      {QT_TRANSLATE_NOOP("butte", "Dose a vessel"), new VesselDosePanel(m_editor, m_units)},
      {QT_TRANSLATE_NOOP("butte", "Meter says otherwise"), new ReadingPanel(m_editor, m_units)},
      {QT_TRANSLATE_NOOP("butte", "Levels"), new LevelsPanel(m_editor, m_units)}};
  int i = 0;
  for (const auto& [name, panel] : parts) {
    auto* button = new QToolButton;
    button->setText(app::tr(name));
    button->setCheckable(true);
    button->setObjectName(QString("stockPart%1").arg(i));
    m_partButtons->addButton(button, i++);
    bar->addWidget(button);
    m_parts->addWidget(panel);
    connect(panel, &StockPanel::message, this, &StocksPage::message);
  }
  m_partButtons->button(0)->setChecked(true);
  connect(m_partButtons, &QButtonGroup::idClicked, m_parts, &QStackedWidget::setCurrentIndex);
  m_beside = new FillingCombo;
  m_beside->setObjectName("besideSet");
  m_beside->setAccessibleName(tr("a second set of tanks beside these"));
  m_beside->addItem(tr("Second set beside…"), "");
  m_beside->setMinimumContentsLength(20);
  static_cast<FillingCombo*>(m_beside)->fill = [this] {
    m_beside->clear();
    m_beside->addItem(tr("Second set beside…"), "");
    if (!m_desk.isOpen()) return;
    const auto heads = m_desk.book().store().list(book::Kind::Formula, false);
    if (!heads) return;
    for (const auto& head : *heads) {
      if (head.ref.uid != m_desk.inHand().uid)
        m_beside->addItem(QString::fromStdString(head.name), QString::fromStdString(head.ref.uid));
    }
  };
  connect(m_beside, &QComboBox::activated, this, [this] {
    const auto uid = m_beside->currentData().toString().toStdString();
    StockEdits(m_editor).setBeside(uid, m_beside->currentText());
  });
  bar->addStretch();
  bar->addWidget(m_beside);
  column->addLayout(bar);
  column->addWidget(m_parts, 1);
  return box;
}

void StocksPage::showPart(Part part) {
  m_partButtons->button(static_cast<int>(part))->click();
}

/// Cards for as many tanks as there are.
void StocksPage::makeCards() {
  const auto count = m_editor.answer().stock.tanks.size();
  while (m_cards.size() > count) {
    m_cards.back()->deleteLater();
    m_cards.back()->hide();
    m_cards.pop_back();
  }
  while (m_cards.size() < count) {
    const auto index = m_cards.size();
    auto* card = new TankCard(m_editor, m_units, index);
    connect(card, &TankCard::message, this, &StocksPage::message);
    connect(card->items(), &TankItems::dragging, this, &StocksPage::aimAt);
    connect(card->items(), &TankItems::dropped, this,
            [this, index](const std::string& product, const QPoint& at, bool half) {
              drop(index, product, at, half);
            });
    connect(card->items(), &TankItems::stepped, this,
            [this, index](const std::string& product, int by, bool half) {
              const int to = static_cast<int>(index) + by;
              if (to < 0 || to >= static_cast<int>(m_cards.size())) return;
              StockEdits(m_editor).move(product, index, static_cast<std::size_t>(to), half);
              m_cards[static_cast<std::size_t>(to)]->items()->setFocus();
            });
    connect(card->items(), &TankItems::toRules, this,
            [this](const std::string& product) { StockEdits(m_editor).byRules(product); });
    m_cardRow->addWidget(card, 1);
    m_cards.push_back(card);
  }
}

int StocksPage::cardAt(const QPoint& global) const {
  for (std::size_t i = 0; i < m_cards.size(); ++i) {
    if (m_cards[i]->rect().contains(m_cards[i]->mapFromGlobal(global))) return static_cast<int>(i);
  }
  return -1;
}

void StocksPage::aimAt(const QPoint& global) {
  const int at = global.isNull() ? -1 : cardAt(global);
  for (std::size_t i = 0; i < m_cards.size(); ++i)
    m_cards[i]->setAim(static_cast<int>(i) == at);
}

void StocksPage::drop(std::size_t from, const std::string& product, const QPoint& global, bool half) {
  const int to = cardAt(global);
  if (to >= 0 && to != static_cast<int>(from))
    StockEdits(m_editor).move(product, from, static_cast<std::size_t>(to), half);
}

void StocksPage::refreshRuler() {
  const auto& shelf = m_editor.document().given.request.shelf;
  std::vector<StrengthRuler::Mark> marks;
  for (const auto& content : m_editor.answer().stock.tanks) {
    if (content.items.empty() || content.tank.ownFactor || content.tank.use == core::TankUse::Acid) continue;
    StrengthRuler::Mark mark{QString::fromStdString(content.tank.name),
                             content.maxFactorOfKnown.value_or(0),
                             content.safeFactor.value_or(0),
                             {}};
    mark.limitedBy =
        QString::fromStdString(content.limitingProduct ? m_editor.nameOf(shelf[*content.limitingProduct].id)
                                                       : words::solidName(content.limitingSolid));
    marks.push_back(std::move(mark));
  }
  m_ruler->show(m_editor.document().given.stock.factor, std::move(marks));
}

void StocksPage::refreshApart() {
  const auto& answer = m_editor.answer();
  const auto& shelf = m_editor.document().given.request.shelf;
  QStringList lines;
  for (const auto j : answer.stock.notPlaced) {
    const auto mass = answer.solution.grams[j];
    const auto& p = shelf[j];
    const auto liquid = p.densityKgPerL ? QString(" (%1)").arg(m_units.stockText(
                                              core::Volume::fromLitres(mass.kilograms() / *p.densityKgPerL)))
                                        : QString();
    lines << tr("Apart: %1%2 %3 per %4 of feed")
                 .arg(m_units.text(mass), liquid, QString::fromStdString(m_editor.nameOf(p.id)),
                      m_units.text(m_editor.document().given.request.volume));
  }
  for (const auto& notice : answer.stock.notices) {
    using core::StockWarning;
    const bool grave =
        notice.kind == StockWarning::ChelateMeetsAcid || notice.kind == StockWarning::AcidMeetsWeakSalt ||
        notice.kind == StockWarning::AcidMeetsHypochlorite || notice.kind == StockWarning::WhollyTooStrong ||
        notice.kind == StockWarning::WaterFallsOut;
    if (grave)
      lines << "▲ " + QString::fromStdString(words::stockNoticeText(
                          notice, [this](const std::string& id) { return m_editor.nameOf(id); }));
  }
  m_apart->setText(lines.join("\n"));
  m_apart->setVisible(!lines.isEmpty());
}

/// Another formula's tanks beside these: the same water, another crop.
void StocksPage::refreshBeside() {
  const auto& uid = m_editor.document().dosing.besideUid;
  m_besideText->setVisible(!uid.empty());
  if (uid.empty()) return m_beside->setCurrentIndex(0);
  const auto other =
      m_desk.isOpen() ? m_desk.formula(uid) : core::Result<exchange::FormulaDocument>(core::Problem{});
  const auto answer = other ? core::compute(other->given) : core::Result<core::Answer>(core::Problem{});
  if (!answer) return m_besideText->setText(tr("The second set's formula is not in this book any more."));
  QStringList tanks;
  for (const auto& content : answer->stock.tanks) {
    if (content.items.empty()) continue;
    tanks << tr("<b>%1 · %2</b> %3 of salts in %4%5")
                 .arg(QString::fromStdString(content.tank.name).toHtmlEscaped(),
                      QString::fromStdString(words::tankSideText(other->given.request.shelf, content)),
                      m_units.text(content.total()), m_units.stockText(content.tank.volume),
                      content.maxFactorOfKnown
                          ? tr(", clear up to 1:%1")
                                .arg(QString::fromStdString(words::ceilingFigure(*content.maxFactorOfKnown)))
                          : QString());
  }
  const auto key = QString::fromStdString(uid);
  if (m_beside->findData(key) < 0) m_beside->addItem(QString::fromStdString(other->name), key);
  m_beside->setCurrentIndex(m_beside->findData(key));
  const bool sameRatio = std::abs(other->given.stock.factor - m_editor.document().given.stock.factor) < 1e-9;
  m_besideText->setText(tr("Second set, <b>%1</b> at 1:%2%3: %4. EC %5.")
                            .arg(QString::fromStdString(other->name).toHtmlEscaped(),
                                 localFigure(other->given.stock.factor),
                                 sameRatio ? QString() : tr(" (▲ another ratio than this set)"),
                                 tanks.join("; "), m_units.text(answer->feed.conductivity)));
}

void StocksPage::refresh() {
  const bool direct = MixingEdits(m_editor).isDirect();
  m_wayButtons->button(direct)->setChecked(true);
  m_ways->setCurrentIndex(direct);
  if (direct) return;
  makeCards();
  for (auto* card : m_cards)
    card->refresh();
  m_strength->refresh();
  refreshRuler();
  refreshApart();
  refreshBeside();
}

} // namespace butte::app
