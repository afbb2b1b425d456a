#include "stations/tank/tank_page.h"

#include "document/book_desk.h"
#include "fields/filling_combo.h"
#include "paint/beside_or_below.h"
#include "paint/flow_row.h"
#include "paint/scrolling.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "refresh/while_seen.h"
#include "services/prompts.h"
#include "services/units_shown.h"
#include "stations/tank/advice_lines.h"
#include "stations/tank/advice_matrix.h"
#include "stations/tank/element_bands.h"
#include "stations/tank/facts_panel.h"
#include "stations/tank/live_readings.h"
#include "stations/tank/log_entry.h"
#include "stations/tank/log_list.h"
#include "stations/tank/root_panel.h"
#include "stations/tank/tank_picture.h"
#include "stations/tank/tank_words.h"
#include "stations/tank/vessel_card.h"
#include "stations/tank/warmth_panel.h"
#include "streams/stream_desk.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QButtonGroup>
#include <QPushButton>
#include <QScrollArea>
#include <QStackedWidget>
#include <QVBoxLayout>
#include <algorithm>

namespace butte::app {

using book::TankDid;
using book::TankLine;
using core::AdviceKind;

namespace {

/// As low as the page wants it.
QScrollArea* scrolled(QWidget* inside) {
  auto* out = scrolling(inside);
  out->setMinimumHeight(60);
  out->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Ignored);
  return out;
}
} // namespace

TankPage::TankPage(BookDesk& desk, UnitsShown& units, Prompts& prompts, StreamDesk& streams, QWidget* parent)
    : QWidget(parent), m_desk(desk), m_units(units), m_prompts(prompts), m_streams(streams), m_edits(desk),
      m_new(new QPushButton(tr("New tank…"))), m_loggers(new QPushButton(tr("Loggers…"))),
      m_picture(new TankPicture(units)), m_elements(new ElementBands), m_advice(new AdviceMatrix(units)),
      m_entry(new LogEntry(units)), m_list(new LogList), m_facts(new FactsPanel(m_edits, units)),
      m_root(new RootPanel(m_edits, units)), m_warmth(new WarmthPanel(units)), m_side(new QStackedWidget),
      m_ahead(new WrappedLabel), m_doing(new WrappedLabel), m_do(new QPushButton(tr("Done: log it"))),
      m_weigh(new QPushButton(tr("Weigh at the Bench"))), m_fills(new QPushButton), m_over(new FillingCombo),
      m_seen(new WhileSeen(this, [this] { refresh(); })) {
  m_new->setObjectName("newTank");
  connect(m_new, &QPushButton::clicked, this, &TankPage::newVessel);
  m_loggers->setObjectName("loggers");
  m_loggers->setToolTip(tr("Meters that write or send by themselves: files, lines, Modbus, MQTT"));
  connect(m_loggers, &QPushButton::clicked, this, &TankPage::loggersAsked);
  auto* cards = new QWidget;
  m_cardRow = new FlowRow(cards, 8);
  m_cardRow->addTogether({m_new, m_loggers});
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(8);
  column->addWidget(cards);
  auto* upper = new BesideOrBelow(16);
  upper->add(m_picture, 3);
  upper->add(makeSide(), 2);
  column->addWidget(upper, 1);
  column->addWidget(makeBelow());
  m_entry->onRead = [this](const TypedReadings& typed) { return keepReadings(typed); };
  m_entry->onTold = [this](const TankLine& line) { return keepLine(line); };
  connect(m_entry, &LogEntry::message, this, &TankPage::message);
  connect(m_facts, &FactsPanel::message, this, &TankPage::message);
  m_root->onRead = m_entry->onRead;
  m_root->onTold = m_entry->onTold;
  connect(m_root, &RootPanel::message, this, &TankPage::message);
  connect(m_warmth, &WarmthPanel::message, this, &TankPage::message);
  connect(m_root, &RootPanel::targetAsked, this, &TankPage::targetAsked);
  connect(m_picture, &TankPicture::explained, this, &TankPage::message);
  connect(m_list, &LogList::strikeAsked, this, [this](const book::Ref& line, const QString& what) {
    heard(m_edits.strike(line, what), tr("In the bin: %1; Ctrl+Z brings it back.").arg(what));
  });
  connect(m_list, &LogList::tableAsked, this, &TankPage::writeLog);
  connect(m_list, &LogList::bringInAsked, this, &TankPage::bringLogIn);
  connect(m_advice, &AdviceMatrix::picked, this, &TankPage::showAdvice);
  connect(m_advice, &AdviceMatrix::taken, this, &TankPage::doAdvice);
  connect(m_do, &QPushButton::clicked, this, [this] { doAdvice(m_advice->chosen()); });
  const auto outdate = [this] { m_seen->outdate(); };
  connect(&desk, &BookDesk::bookOpened, this, outdate);
  connect(&desk, &BookDesk::changed, this, [outdate](const std::vector<book::Ref>& refs) {
    using book::Kind;
    if (std::any_of(refs.begin(), refs.end(), [](const book::Ref& ref) {
          return ref.kind == Kind::Vessel || ref.kind == Kind::TankLine || ref.kind == Kind::Reading ||
                 ref.kind == Kind::Formula;
        }))
      outdate();
  });
  connect(&units, &UnitsShown::changed, this, outdate);
  connect(&streams, &StreamDesk::changed, this, [this] {
    for (auto* card : m_cards)
      if (isVisible() && !m_streams.ofVessel(card->uid()).empty()) showCard(*card);
  });
  m_picture->onStretch = [this] { lookCloser(); };
}

QWidget* TankPage::makeSide() {
  auto* side = new QWidget;
  auto* column = new QVBoxLayout(side);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(6);
  auto* heads = new FlowRow;
  auto* group = new QButtonGroup(side);
  const auto add = [&](const QString& words, const QString& object, QWidget* page) {
    auto* button = new QPushButton(words);
    button->setObjectName(object);
    button->setCheckable(true);
    group->addButton(button, m_side->count());
    heads->addWidget(button);
    m_side->addWidget(page);
  };
  auto* now = new QWidget;
  auto* inside = new QVBoxLayout(now);
  inside->setContentsMargins(0, 0, 0, 0);
  m_ahead->setObjectName("tankAhead");
  m_ahead->setFont(faceOf(12));
  m_ahead->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  inside->addWidget(m_entry);
  m_fills->setObjectName("logFills");
  m_fills->setToolTip(
      tr("The level leapt up and nobody wrote down why: each is logged as a fill with the vessel's "
         "feed, up to what was read. A line that was another thing goes into the bin in the Log."));
  m_fills->hide();
  connect(m_fills, &QPushButton::clicked, this, &TankPage::logFills);
  inside->addWidget(m_fills, 0, Qt::AlignLeft);
  inside->addWidget(m_ahead, 1);
  add(tr("Now"), "tankNow", scrolled(now));
  add(tr("Log"), "tankLogTab", m_list);
  add(tr("Analysis"), "tankRoot", scrolled(m_root));
  add(tr("Warmth"), "tankWarmth", scrolled(m_warmth));
  add(tr("Vessel"), "tankFacts", scrolled(m_facts));
  heads->addStretch();
  m_over->setObjectName("tankOver");
  m_over->setAccessibleName(tr("laid over the picture"));
  m_over->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  m_over->setMinimumContentsLength(12);
  m_over->addItem(tr("lay over…"), QString());
  m_over->fill = [this] {
    const auto before = m_over->currentData();
    m_over->clear();
    m_over->addItem(tr("lay over…"), QString());
    m_over->addItem(tr("the same, a year before"), qtext(m_vessel));
    for (const auto& head : m_edits.vessels())
      if (head.ref.uid != m_vessel) m_over->addItem(qtext(head.name), qtext(head.ref.uid));
    m_over->setCurrentIndex(std::max(0, m_over->findData(before)));
  };
  connect(m_over, &QComboBox::activated, this, &TankPage::layOver);
  heads->addWidget(m_over);
  group->button(0)->setChecked(true);
  connect(group, &QButtonGroup::idClicked, m_side, &QStackedWidget::setCurrentIndex);
  column->addLayout(heads);
  column->addWidget(m_side, 1);
  return side;
}

QWidget* TankPage::makeBelow() {
  auto* below = new BesideOrBelow(16);
  auto* choices = new QWidget;
  auto* column = new QVBoxLayout(choices);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  column->addWidget(m_advice);
  auto* row = new QHBoxLayout;
  m_doing->setObjectName("adviceDoing");
  m_doing->setFont(faceOf(13));
  m_do->setObjectName("adviceDo");
  row->addWidget(m_doing, 1);
  m_weigh->setObjectName("adviceWeigh");
  m_weigh->hide();
  connect(m_weigh, &QPushButton::clicked, this, [this] {
    const int advice = m_advice->chosen();
    if (advice < 0) return;
    const auto& chosen = m_story.advice[static_cast<std::size_t>(advice)];
    emit benchAsked(chosen.grams, chosen.pour);
  });
  auto* presses = new QVBoxLayout;
  presses->addWidget(m_do);
  presses->addWidget(m_weigh);
  presses->addStretch();
  row->addLayout(presses);
  column->addLayout(row);
  column->addStretch();
  below->add(m_elements, 2);
  below->add(choices, 3);
  return below;
}

void TankPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  m_seen->outdate(); // time has passed
}

void TankPage::focusFirst() {
  m_entry->focusFirst();
}

void TankPage::showVessel(const std::string& uid) {
  if (uid != m_vessel) forgetStory();
  m_vessel = uid;
  m_seen->outdate();
}

/// Until the next one is worked out nothing of another vessel may be taken.
void TankPage::forgetStory() {
  m_story = {};
  m_advice->clear();
  m_root->setEnabled(false);
  m_fills->hide();
  showAdvice(-1);
}

void TankPage::refreshCards(const std::vector<book::RecordHead>& heads) {
  const bool same = heads.size() == m_cards.size() && std::equal(heads.begin(), heads.end(), m_cards.begin(),
                                                                 [](const auto& head, const auto* card) {
                                                                   return head.ref.uid == card->uid();
                                                                 });
  if (!same) {
    for (auto* card : m_cards)
      delete card;
    m_cards.clear();
    auto* presses = m_new->parentWidget();
    for (int i = m_cardRow->count() - 1; i >= 0; --i)
      if (m_cardRow->itemAt(i)->widget() == presses) delete m_cardRow->takeAt(i);
    for (const auto& head : heads) {
      auto* card = new VesselCard(head.ref.uid);
      card->setObjectName("tankCard" + QString::number(m_cards.size()));
      connect(card, &QAbstractButton::clicked, this, [this, uid = head.ref.uid] { showVessel(uid); });
      m_cardRow->addWidget(card);
      m_cards.push_back(card);
    }
    m_cardRow->addWidget(presses);
  }
  for (auto* card : m_cards)
    showCard(*card);
}

void TankPage::showCard(VesselCard& card) {
  const auto facts = m_edits.facts(card.uid());
  if (!facts) return;
  const auto now = book::Moment::now();
  card.show(*facts, liveReadings(m_streams, card.uid(), m_edits.lastReadings(card.uid())), now,
            loggerTrouble(m_streams, card.uid(), now));
  card.setChecked(card.uid() == m_vessel);
}

void TankPage::refresh() {
  const auto heads = m_edits.vessels();
  const bool known =
      std::any_of(heads.begin(), heads.end(), [&](const auto& head) { return head.ref.uid == m_vessel; });
  if (!known) {
    forgetStory();
    m_vessel = heads.empty() ? std::string() : heads.front().ref.uid;
  }
  refreshCards(heads);
  m_side->setEnabled(!m_vessel.empty());
  m_new->setEnabled(m_desk.isOpen() && !m_desk.isReadOnly());
  if (m_vessel.empty()) {
    m_work.cancel();
    m_picture->showNothing(
        tr("No tank yet. Name one, say how much it holds and which formula fills it: Butte "
           "then keeps its log, follows every element, and says what to pour in."));
    m_elements->clear();
    m_advice->clear();
    m_list->clear();
    m_ahead->setText({});
    showAdvice(-1);
    return;
  }
  auto log = m_edits.log(m_vessel);
  if (!log) {
    emit message(problemWords(log.problem()));
    return;
  }
  m_log = std::move(log).value();
  work();
  m_entry->setFacts(m_log.facts);
  m_facts->show(m_vessel, m_log.facts);
}

void TankPage::take(TankTold told) {
  if (!heard(told.trouble, {})) return;
  m_given = std::move(told.given);
  m_story = std::move(told.story);
  m_list->show(m_log, m_given);
  m_warmth->show(m_given);
  m_root->setEnabled(true);
  m_root->show(m_vessel, m_given, m_story, m_edits.lastReadings(m_vessel));
  if (m_story.none != NoStory::None) {
    m_picture->showNothing(noStoryWords(m_story.none));
    m_elements->clear();
    m_advice->clear();
    m_ahead->setText(noStoryWords(m_story.none));
    showAdvice(-1);
    return;
  }
  m_picture->show(m_given, m_story);
  lookCloser();
  const auto fills = fillsShown(m_story, m_given.facts).size();
  m_fills->setText(
      counted(fills, tr("Log %1 fill that the level shows"), tr("Log %1 fills that the level shows")));
  m_fills->setVisible(fills > 0);
  m_elements->show(m_story);
  m_advice->show(m_story);
  QStringList words{driftWords(m_story)};
  words << aheadWords(m_story);
  const auto doubts = doubtWords(m_story, m_units);
  constexpr qsizetype newest = 3;
  for (auto i = std::max<qsizetype>(0, doubts.size() - newest); i < doubts.size(); ++i)
    words << tr("Does not fit: %1").arg(doubts[i]);
  words << guessWords(m_story) << doseWords(m_story, m_given) << warmthWords(m_given)
        << scoreWords(m_story, m_units);
  m_ahead->setText(words.join("\n"));
  showAdvice(m_advice->chosen());
}

void TankPage::showAdvice(int advice) {
  const bool some =
      advice >= 0 && advice < static_cast<int>(m_story.advice.size()) && m_story.none == NoStory::None;
  const bool open = some && m_story.advice[static_cast<std::size_t>(advice)].notOpen == core::NotOpen::None;
  m_do->setEnabled(open && !m_desk.isReadOnly());
  const auto salts = [&] {
    const auto& chosen = m_story.advice[static_cast<std::size_t>(advice)];
    return chosen.kind == AdviceKind::RefillBySalts && !chosen.grams.empty();
  };
  m_weigh->setVisible(open && salts());
  if (!open) {
    m_do->setText(tr("Done: log it"));
    m_doing->setText(m_story.none == NoStory::None
                         ? tr("Choose a line: what it makes of the tank stands beside it, in a week below.")
                         : QString());
    return;
  }
  const auto& chosen = m_story.advice[static_cast<std::size_t>(advice)];
  m_doing->setText(adviceDoing(chosen, m_story, m_given, m_units));
  m_do->setText(chosen.kind == AdviceKind::FeedByUptake ? tr("As target of the formula")
                                                        : tr("Done: log it"));
}

void TankPage::doAdvice(int index) {
  if (index < 0 || index >= static_cast<int>(m_story.advice.size())) return;
  const auto advice = m_story.advice[static_cast<std::size_t>(index)];
  if (advice.notOpen != core::NotOpen::None)
    return emit message(tr("%1: %2").arg(adviceTitle(advice.kind), notOpenWords(advice, m_story)));
  if (advice.kind == AdviceKind::FeedByUptake) return emit targetAsked(advice.feed);
  auto lines = linesOf(advice, m_story, m_given.facts);
  for (auto& line : lines) {
    line.vesselUid = m_vessel;
    m_edits.nameFilling(line, m_given.facts);
  }
  if (heard(m_edits.tellAll(lines),
            tr("In the log: %1. Ctrl+Z takes it back.").arg(adviceTitle(advice.kind))))
    m_advice->choose(-1);
}

void TankPage::newVessel() {
  const auto name = m_prompts.words(tr("New tank"), tr("What it is called on the farm:"), {}).trimmed();
  if (name.isEmpty()) return;
  if (m_edits.isNamed(name)) return emit message(tr("There is a tank called %1 already.").arg(name));
  const auto made = m_edits.makeVessel(name);
  if (!made) return emit message(problemWords(made.problem()));
  // What is in hand most likely fills it.
  if (!m_desk.inHand().uid.empty()) heard(m_edits.setText(*made, "formula", qtext(m_desk.inHand().uid)), {});
  showVessel(*made);
  findChild<QPushButton*>("tankFacts")->click();
}

bool TankPage::heard(const book::Trouble& trouble, const QString& done) {
  if (trouble)
    emit message(problemWords(*trouble));
  else if (!done.isEmpty())
    emit message(done);
  return !trouble;
}

bool TankPage::keepReadings(const TypedReadings& typed) {
  return heard(m_edits.read(m_vessel, typed), tr("Read and kept; Ctrl+Z takes it back."));
}

bool TankPage::keepLine(TankLine line) {
  line.vesselUid = m_vessel;
  m_edits.nameFilling(line, m_given.facts);
  return heard(m_edits.tell(line), tr("In the log; Ctrl+Z takes it back."));
}

} // namespace butte::app
