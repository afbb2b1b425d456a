/// The hands' stations in the window: what a bench and a tank ask of it.
#include "document/batch_record.h"
#include "edits/bench_edits.h"
#include "edits/target_edits.h"
#include "paint/scrolling.h"
#include "print/sheet_text.h"
#include "stations/bench/bench_page.h"
#include "stations/bench/device_dialog.h"
#include "stations/bench/run_page.h"
#include "stations/bench/scale_check_dialog.h"
#include "stations/shelf/shelf_page.h"
#include "stations/tank/stream_dialog.h"
#include "stations/tank/tank_page.h"
#include "window/file_actions.h"
#include "window/line_bar.h"
#include "window/main_window.h"
#include "wording/agenda_words.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "words.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QMenuBar>
#include <QRandomGenerator>
#include <QStackedWidget>

namespace butte::app {

QWidget* MainWindow::makeTankPage() {
  m_tank = new TankPage(m_desk, m_units, m_prompts, m_streams);
  connect(m_tank, &TankPage::loggersAsked, this, [this] {
    if (!m_desk.isOpen()) return;
    if (m_desk.isReadOnly())
      return say(tr("This book can only be read here: what a logger says could not be kept."));
    StreamDialog(m_desk, m_streams, this).exec();
  });
  connect(m_tank, &TankPage::message, this, &MainWindow::say);
  const auto takeItsFormula = [this] {
    const auto& uid = m_tank->facts().formulaUid;
    if (uid == m_desk.inHand().uid) return true;
    const auto trouble = m_desk.openFormula({book::Kind::Formula, uid});
    if (trouble) say(QString::fromStdString(words::problemText(*trouble)));
    return !trouble;
  };
  connect(m_tank, &TankPage::benchAsked, this,
          [this, takeItsFormula](const std::vector<core::Mass>& grams, core::Volume water) {
            const auto facts = m_tank->facts();
            if (!m_files->mayLeave() || !takeItsFormula()) return;
            m_run->beginWeights(m_editor, facts.name, facts.fullVolume(), grams,
                                {m_tank->vessel(), water.litres()});
            showRun();
          });
  connect(m_tank, &TankPage::targetAsked, this, [this, takeItsFormula](const core::FeedContent& feed) {
    const auto facts = m_tank->facts();
    if (!takeItsFormula()) return;
    TargetEdits(m_editor).takeFeed(feed.milligramsPerLitre, QString::fromStdString(facts.name));
    showStation(Station::Target);
  });
  return m_tank;
}

QWidget* MainWindow::makeShelfPage() {
  m_shelf = new ShelfPage(m_desk, m_editor, m_units, m_prompts);
  connect(m_shelf, &ShelfPage::message, this, &MainWindow::say);
  connect(m_shelf, &ShelfPage::told, this, [this](const QString& first, const QString& second, bool trouble) {
    m_line->card(Station::Shelf)->setHeadline(first, second, trouble);
    const auto& story = m_shelf->story();
    const auto today = dueTexts(story, story.today - std::chrono::days(core::mostDaysLate), story.today);
    if (!m_desk.isOpen() || m_desk.isSample() || today.isEmpty()) return;
    m_notifier.sayOnce(qtext(book::isoText(story.today)), tr("To do today"), today.join("\n"));
  });
  m_shelf->scaleShows = [this]() -> std::optional<core::Mass> {
    const auto* scale = m_devices.scale({});
    if (!scale) return std::nullopt;
    const auto now = scale->scaleNow();
    return now.still ? std::optional(now.shown) : std::nullopt;
  };
  return m_shelf;
}

void MainWindow::connectBench(BenchPage* bench) {
  m_run = new RunPage(m_desk, m_units, m_prompts, m_devices);
  m_runView = scrolling(m_run);
  m_pages->addWidget(m_runView);
  connect(bench, &BenchPage::runAsked, this, [this] { runAtTheBench(RunSort::Batch); });
  connect(bench, &BenchPage::bagsAsked, this, [this] { runAtTheBench(RunSort::Bags); });
  connect(bench, &BenchPage::practiceAsked, this, [this] { runAtTheBench(RunSort::Practice); });
  connect(m_run, &RunPage::labelsAsked, this,
          [this](const QStringList& labels) { m_files->exportBagLabels(labels); });
  connect(m_run, &RunPage::message, this, &MainWindow::say);
  connect(m_run, &RunPage::left, this, [this] { showStation(Station::Bench); });
  connect(m_run, &RunPage::finished, this, &MainWindow::showRecord);
  connect(m_run, &RunPage::fullScreenAsked, this, [this](bool on) {
    menuBar()->setVisible(!on);
    m_line->setVisible(!on);
    m_banner->setVisible(!on && !m_banner->text().isEmpty());
    setWindowState(windowState().setFlag(Qt::WindowFullScreen, on));
  });
  connect(m_run, &RunPage::checkAsked, this, [this] {
    ScaleCheckDialog(m_desk, m_editor, m_units, m_devices, this).exec();
    m_run->refresh();
  });
  connect(m_run, &RunPage::devicesAsked, this, [this] { DeviceDialog(m_devices, m_editor, this).exec(); });
  connect(bench, &BenchPage::mixedAsked, this, &MainWindow::keepMixedBatch);
  connect(bench, &BenchPage::message, this, &MainWindow::say);
  connect(bench, &BenchPage::pdfAsked, this, [this] { m_files->exportSheet(); });
  connect(bench, &BenchPage::printAsked, this, [this] { m_files->printSheet(); });
}

/// What was begun goes on; else the formula in hand is begun.
void MainWindow::runAtTheBench(RunSort sort) {
  if (!m_desk.isOpen()) return;
  if (m_desk.isReadOnly())
    return say(tr("This book can only be read here: what is weighed could not be kept."));
  if (const auto begun = BenchEdits::unfinished(m_desk, sort)) {
    m_run->goOn(*begun);
  } else if (!BenchEdits::canBegin(m_editor)) {
    return say(tr("Nothing to weigh: tanks with salts are needed, or one vessel that lacks some."));
  } else if (!beginRun(sort)) {
    return;
  }
  showRun();
}

void MainWindow::showRun() {
  if (!m_run->run().isOpen()) return; // it has said why
  m_side->hide();
  m_body->setSpacing(0);
  m_pages->setCurrentWidget(m_runView);
  m_run->setFocus();
}

/// False where it was not begun.
bool MainWindow::beginRun(RunSort sort) {
  std::optional<std::size_t> bags;
  if (sort == RunSort::Bags && !(bags = askedBags())) return false;
  if (!m_files->mayLeave()) return false;
  if (sort == RunSort::Batch) m_run->begin(m_editor);
  if (sort == RunSort::Practice) m_run->beginPractice(m_editor, QRandomGenerator::global()->generate());
  if (bags) m_run->beginBags(m_editor, *bags);
  return true;
}

std::optional<std::size_t> MainWindow::askedBags() {
  const auto most = BenchEdits::mostBags(m_editor);
  const auto typed = m_prompts.words(tr("Bags"), tr("How many bags of each salt?"), "10").trimmed();
  if (typed.isEmpty()) return std::nullopt;
  bool isNumber = false;
  const auto count = typed.toUInt(&isNumber);
  if (isNumber && count >= 1 && count <= most) return count;
  say(tr("\"%1\" bags: a whole number from 1 to %2 is needed.").arg(typed).arg(most));
  return std::nullopt;
}

void MainWindow::keepMixedBatch() {
  if (!m_files->mayLeave()) return;
  if (!m_desk.isOpen()) return;
  const auto ref = recordBatch(m_desk, m_editor, benchSheetHtml(m_editor, m_units, sheetDayMark));
  if (!ref) return say(QString::fromStdString(words::problemText(ref.problem())));
  showRecord(*ref);
  say(tr("The batch is in the book. Type what the scale showed, the lots and the readings; it is kept as you "
         "type."));
}

} // namespace butte::app
