#include "window/main_window.h"

#include "document/batch_record.h"
#include "edits/keep_and_use.h"
#include "paint/plain_label.h"
#include "paint/scrolling.h"
#include "paint/steady_room.h"
#include "paint/theme.h"
#include "print/sheet_text.h"
#include "refresh/while_seen.h"
#include "stations/bench/bench_page.h"
#include "stations/bench/device_dialog.h"
#include "stations/bench/run_page.h"
#include "stations/bench/scale_check_dialog.h"
#include "stations/book/book_page.h"
#include "stations/formula/change_line.h"
#include "stations/formula/element_lanes.h"
#include "stations/formula/feed_figures.h"
#include "stations/formula/product_list.h"
#include "stations/formula/product_page.h"
#include "stations/formula/reason_strip.h"
#include "stations/formula/solve_bar.h"
#include "stations/formula/stage_strip.h"
#include "stations/shelf/shelf_page.h"
#include "stations/stocks/stocks_page.h"
#include "stations/tank/tank_page.h"
#include "stations/target/crops_page.h"
#include "stations/target/target_page.h"
#include "stations/water/acid_panel.h"
#include "stations/water/water_page.h"
#include "window/book_actions.h"
#include "window/edit_actions.h"
#include "window/file_actions.h"
#include "window/finder.h"
#include "window/first_start.h"
#include "window/line_bar.h"
#include "window/text_size.h"
#include "window/view_actions.h"
#include "wording/tr.h"
#include "words.h"

#include <QApplication>
#include <QCloseEvent>
#include <QDragEnterEvent>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QMenuBar>
#include <QMimeData>
#include <QRandomGenerator>
#include <QScrollArea>
#include <QStackedWidget>
#include <QStatusBar>
#include <QVBoxLayout>
#include <algorithm>

namespace butte::app {

namespace {

constexpr int columnGap = 18;
constexpr int leastBodyWidth = 800, comfortablePageWidth = 500;
constexpr int leastSideWidth = 300, usualSideWidth = 376; // beside a wide page it takes its usual room
} // namespace

MainWindow::MainWindow(QSettings& settings, const QString& dataFolder, QWidget* parent)
    : QMainWindow(parent), m_settings(settings), m_units(settings), m_desk(m_editor, settings, dataFolder),
      m_devices(settings), m_streams(m_desk, settings), m_mends(m_editor), m_prompts(dialogPrompts(*this)),
      m_notifier(settings) {
  resize(1280, 800);
  setAcceptDrops(true);
  m_line = new LineBar(m_editor, m_units, m_desk);
  m_products = new ProductList(m_editor, m_units, m_desk);
  m_banner = new PlainLabel;
  m_banner->setObjectName("bookBanner");
  m_banner->hide();
  auto* stationPages = makeStations();
  auto* central = new QWidget;
  auto* column = new QVBoxLayout(central);
  column->setContentsMargins(16, 8, 16, 4);
  column->setSpacing(10);
  column->addWidget(m_banner);
  column->addWidget(m_line);
  auto* acid = new AcidPanel(m_editor, m_units);
  m_side = new QStackedWidget;
  m_sides[StationSide::Shelf] = m_products;
  m_sides[StationSide::Acid] = scrolling(acid);
  m_sides[StationSide::Book] = m_bookPage->side();
  for (const auto& [side, page] : m_sides)
    m_side->addWidget(page);
  auto* body = new QWidget;
  m_body = new QHBoxLayout(body);
  m_body->setContentsMargins(0, 0, 0, 0);
  m_body->setSpacing(columnGap);
  m_body->addWidget(stationPages, 1);
  m_body->addWidget(m_side);
  body->setMinimumWidth(leastBodyWidth);
  column->addWidget(scrolling(body), 1);
  setCentralWidget(central);
  statusBar()->setSizeGripEnabled(false);
  m_kept = new PlainLabel;
  m_kept->setObjectName("keptMark");
  statusBar()->addPermanentWidget(m_kept);

  m_books = new BookActions(*this);
  m_files = new FileActions(*this, m_settings, m_prompts);
  new EditActions(*this);
  new ViewActions(*this, m_settings);
  new FinderActions(*this);
  connectParts(acid);
  openAnew = [this] {
    if (close()) QApplication::exit(startAgainCode);
  };
  showStation(Station::Formula);
  refreshTitle();
}

void MainWindow::connectParts(QWidget* acidPart) {
  auto* acid = static_cast<AcidPanel*>(acidPart);
  connect(m_line, &LineBar::chosen, this, &MainWindow::showStation);
  connect(m_lanes, &ElementLanes::lit, this, &MainWindow::light);
  connect(m_lanes, &ElementLanes::explained, this, &MainWindow::say);
  connect(m_products, &ProductList::lit, this, &MainWindow::light);
  connect(m_products, &ProductList::message, this, &MainWindow::say);
  connect(m_products, &ProductList::detailsAsked, this, &MainWindow::askForProduct);
  connect(m_products, &ProductList::newProductAsked, this, [this] { askForProduct(""); });
  connect(acid, &AcidPanel::message, this, &MainWindow::say);
  connect(m_bookPage, &BookPage::message, this, &MainWindow::say);
  connect(m_bookPage, &BookPage::recordAsked, this, &MainWindow::showRecord);
  connect(&m_editor, &FormulaEditor::refused, this, &MainWindow::say);
  connect(&m_editor, &FormulaEditor::changed, this, &MainWindow::refreshTitle);
  connect(&m_desk, &BookDesk::message, this, &MainWindow::say);
  connect(&m_desk, &BookDesk::bookOpened, this, &MainWindow::refreshTitle);
  connect(&m_desk, &BookDesk::keepingChanged, this, [this](const QString& words, bool trouble) {
    m_kept->setText((trouble ? "▲ " : "● ") + words);
    restyle(*m_kept, QString("color: %1; font-weight: %2; padding-right: 6px")
                         .arg((trouble ? theme().red : theme().inkSoft).name(), trouble ? "bold" : "normal"));
  });
}

/// What its pages put away when they are hidden still needs its parts.
MainWindow::~MainWindow() {
  hide();
}

void MainWindow::openReport(const QString& path) {
  showStation(Station::Water);
  m_water->openReport(path);
}

QWidget* MainWindow::makeStations() {
  m_pages = new QStackedWidget;
  auto* water = m_water = new WaterPage(m_editor, m_units, m_desk, m_prompts);
  auto* target = new TargetPage(m_editor, m_units, m_desk);
  auto* formula = new QWidget;
  m_lanes = new ElementLanes(m_editor);
  auto* column = new QVBoxLayout(formula);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(8);
  auto* aim = new SolveBar(m_editor, m_desk);
  connect(aim, &SolveBar::message, this, &MainWindow::say);
  m_stages = new StageStrip(m_editor, m_prompts);
  connect(m_stages, &StageStrip::message, this, &MainWindow::say);
  connect(m_stages, &StageStrip::cardAsked, this, [this] { m_files->exportStageCard(); });
  column->addWidget(m_stages);
  column->addWidget(aim);
  column->addWidget(m_lanes, 1);
  column->addWidget(new FeedFigures(m_editor, m_units));
  column->addWidget(new SteadyRoom(new ChangeLine(m_editor, m_units)));
  column->addWidget(new ReasonStrip(m_editor, m_mends, m_units));
  m_productPage = new ProductPage(m_editor, m_units, m_prompts);
  addStation(Station::Water, water);
  addStation(Station::Target, target);
  addStation(Station::Formula, formula);
  m_productView = scrolling(m_productPage);
  m_pages->addWidget(m_productView);
  auto* bench = new BenchPage(m_editor, m_units);
  addStation(Station::Bench, bench);
  m_bookPage = new BookPage(m_desk, m_editor, m_units, m_prompts);
  addStation(Station::Book, m_bookPage);
  m_firstStart = new FirstStart(m_desk, m_units);
  m_firstView = scrolling(m_firstStart);
  m_pages->addWidget(m_firstView);
  addStation(Station::Tank, makeTankPage());
  addStation(Station::Shelf, makeShelfPage());
  auto* crops = new CropsPage(m_editor, m_units, m_desk);
  auto* cropsView = scrolling(crops);
  m_pages->addWidget(cropsView);
  m_stocks = new StocksPage(m_editor, m_units, m_desk);
  addStation(Station::Stocks, m_stocks);
  connect(m_stocks, &StocksPage::message, this, &MainWindow::say);
  connect(m_stocks, &StocksPage::labelsAsked, this, [this] { m_files->exportLabels(); });
  connect(target, &TargetPage::severalAsked, this,
          [this, cropsView] { m_pages->setCurrentWidget(cropsView); });
  connect(crops, &CropsPage::done, this, [this] { showStation(Station::Target); });
  connect(crops, &CropsPage::message, this, &MainWindow::say);
  connect(m_firstStart, &FirstStart::done, this, [this] { showStation(Station::Formula); });
  connect(m_firstStart, &FirstStart::message, this, &MainWindow::say);
  connectBench(bench);
  connect(water, &WaterPage::message, this, &MainWindow::say);
  connect(target, &TargetPage::message, this, &MainWindow::say);
  connect(m_productPage, &ProductPage::message, this, &MainWindow::say);
  connect(m_productPage, &ProductPage::ownPut, this, [this](const std::string& id) {
    if (const auto words = keepOwnProduct(m_desk, m_editor, id); !words.isEmpty()) say(words);
  });
  connect(m_productPage, &ProductPage::done, this, [this] { showStation(Station::Formula); });
  return m_pages;
}

void MainWindow::addStation(Station station, QWidget* page) {
  auto* view = scrolling(page); // pictures shrink as far as they can be read, then they scroll too
  m_stationPages[station] = view;
  m_pages->addWidget(view);
}

void MainWindow::showStation(Station station) {
  m_station = station;
  const auto side = infoOf(station).side;
  const bool wide = side == StationSide::None; // the tanks want the whole width
  m_line->setVisible(true);
  m_side->setVisible(!wide);
  m_body->setSpacing(wide ? 0 : columnGap);
  m_pages->setCurrentWidget(m_stationPages.at(station));
  if (!wide) m_side->setCurrentWidget(m_sides.at(side));
  m_line->setCurrent(station);
  if (station == Station::Formula) return m_lanes->setFocus();
  if (station == Station::Tank) return m_tank->focusFirst();
  if (station == Station::Shelf) return m_shelf->focusFirst();
  if (station != Station::Stocks) return;
  if (auto* factor = findChild<QWidget*>("stockFactor")) factor->setFocus(Qt::ShortcutFocusReason);
}

void MainWindow::showFirstStart() {
  m_pages->setCurrentWidget(m_firstView);
  m_line->hide();
  m_side->hide();
  m_firstStart->start();
}

void MainWindow::findText(const QString& text) {
  auto* finder = findChild<Finder*>();
  finder->open();
  finder->type(text);
}

void MainWindow::showRecord(const book::Ref& ref) {
  if (ref.kind != book::Kind::Formula) {
    showStation(Station::Book);
    return m_bookPage->showRecord(ref);
  }
  if (const auto trouble = m_desk.openFormula(ref))
    return say(QString::fromStdString(words::problemText(*trouble)));
  showStation(Station::Formula);
}

void MainWindow::askForProduct(const std::string& id) {
  m_pages->setCurrentWidget(m_productView);
  m_productPage->showProduct(id);
}

void MainWindow::light(const std::string& productId) {
  m_lanes->light(productId);
  m_products->light(productId);
}

void MainWindow::say(const QString& words) {
  statusBar()->showMessage(words);
}

void MainWindow::refreshTitle() {
  const auto name = QString::fromStdString(m_editor.document().name);
  if (!m_desk.isOpen()) return setWindowTitle("Butte");
  const auto farm = QString::fromStdString(m_desk.book().farm());
  setWindowTitle(QString("%1 — %2 — Butte").arg(name, farm));
  QString banner;
  if (m_desk.isSample())
    banner = tr("SAMPLE BOOK — a made-up farm to look at and try things in. Your own: Book menu.");
  if (m_desk.isReadOnly())
    banner = tr("READ ONLY — %1. F5 shows what was changed since.")
                 .arg(QString::fromStdString(m_desk.book().readOnlyWords()));
  m_banner->setVisible(!banner.isEmpty());
  m_banner->setText(banner);
  restyle(*m_banner,
          QString("background: %1; color: %2; border-radius: 4px; padding: 3px 10px; font-weight: bold")
              .arg(theme().amberFill.name(), theme().amberInk.name()));
}

void MainWindow::resizeEvent(QResizeEvent* event) {
  QMainWindow::resizeEvent(event);
  const auto edges = centralWidget()->layout()->contentsMargins();
  const int room = width() - edges.left() - edges.right() - columnGap - comfortablePageWidth;
  constexpr int lowHeight = 480; // of a window: 600 dots at 125 %, 800 at 170 %
  m_line->setLow(height() < lowHeight);
  m_side->setFixedWidth(std::clamp(room, leastSideWidth, usualSideWidth));
}

void MainWindow::closeEvent(QCloseEvent* event) {
  const auto trouble = m_desk.isOpen() ? m_desk.book().flush() : book::Trouble();
  if (trouble && !m_prompts.goOn(tr("Not everything is kept"),
                                 tr("%1\n\nClose all the same and lose the last edit?")
                                     .arg(QString::fromStdString(words::problemText(*trouble))),
                                 tr("Close and lose it")))
    event->ignore();
  else
    event->accept();
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
  if (event->mimeData()->hasUrls()) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
  for (const auto& url : event->mimeData()->urls()) {
    if (url.isLocalFile()) m_books->openAnything(url.toLocalFile());
  }
}

} // namespace butte::app
