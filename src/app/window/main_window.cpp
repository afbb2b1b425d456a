#include "window/main_window.h"

#include "paint/theme.h"
#include "stations/acid_panel.h"
#include "stations/bench_page.h"
#include "stations/element_lanes.h"
#include "stations/feed_figures.h"
#include "stations/line_bar.h"
#include "stations/product_list.h"
#include "stations/product_page.h"
#include "stations/reason_strip.h"
#include "stations/tank_panel.h"
#include "stations/target_page.h"
#include "stations/water_page.h"
#include "window/edit_actions.h"
#include "window/file_actions.h"
#include "window/view_actions.h"

#include <QCloseEvent>
#include <QFileInfo>
#include <QGridLayout>
#include <QMenuBar>
#include <QScrollArea>
#include <QStackedWidget>
#include <QStatusBar>
#include <QVBoxLayout>

namespace butte::app {

namespace {
QScrollArea* scrolling(QWidget* page) {
  auto* area = new QScrollArea;
  area->setWidget(page);
  area->setWidgetResizable(true);
  area->setFrameShape(QFrame::NoFrame);
  area->setFocusPolicy(Qt::NoFocus);
  return area;
}

enum Page { WaterStation, TargetStation, FormulaStation, ProductStation, BenchStation };
}

MainWindow::MainWindow(QSettings& settings, const QString& draftFolder, QWidget* parent)
    : QMainWindow(parent), m_settings(settings), m_units(settings), m_draft(m_editor, draftFolder) {
  resize(1280, 800);
  m_line = new LineBar(m_editor, m_units);
  m_products = new ProductList(m_editor, m_units);
  auto* tanks = new TankPanel(m_editor, m_units);
  auto* central = new QWidget;
  auto* grid = new QGridLayout(central);
  grid->setContentsMargins(16, 8, 16, 4);
  grid->setHorizontalSpacing(18);
  grid->setVerticalSpacing(10);
  grid->addWidget(m_line, 0, 0, 1, 2);
  grid->addWidget(makeStations(), 1, 0);
  grid->addWidget(tanks, 2, 0);
  auto* acid = new AcidPanel(m_editor, m_units);
  m_side = new QStackedWidget;
  m_side->addWidget(m_products);
  m_side->addWidget(scrolling(acid));
  grid->addWidget(m_side, 1, 1, 2, 1);
  grid->setColumnStretch(0, 1);
  grid->setRowStretch(1, 1);
  m_side->setFixedWidth(376);
  tanks->setFixedHeight(222);
  setCentralWidget(central);
  statusBar()->setSizeGripEnabled(false);

  m_files = new FileActions(*this, m_settings);
  new EditActions(*this);
  new ViewActions(*this, m_settings);
  connect(m_line, &LineBar::chosen, this, &MainWindow::showStation);
  connect(m_lanes, &ElementLanes::lit, this, &MainWindow::light);
  connect(m_lanes, &ElementLanes::explained, this, &MainWindow::say);
  connect(m_products, &ProductList::lit, this, &MainWindow::light);
  connect(m_products, &ProductList::message, this, &MainWindow::say);
  connect(m_products, &ProductList::detailsAsked, this, &MainWindow::askForProduct);
  connect(m_products, &ProductList::newProductAsked, this, [this] { askForProduct(""); });
  connect(tanks, &TankPanel::message, this, &MainWindow::say);
  connect(acid, &AcidPanel::message, this, &MainWindow::say);
  connect(&m_editor, &FormulaEditor::refused, this, &MainWindow::say);
  connect(&m_editor, &FormulaEditor::changed, this, &MainWindow::refreshTitle);
  connect(&m_draft, &DraftKeeper::cantWrite, this, &MainWindow::say);
  showStation(2);
  refreshTitle();
}

MainWindow::~MainWindow() = default;

QWidget* MainWindow::makeStations() {
  m_pages = new QStackedWidget;
  auto* water = new WaterPage(m_editor, m_units);
  auto* target = new TargetPage(m_editor);
  auto* formula = new QWidget;
  m_lanes = new ElementLanes(m_editor);
  auto* column = new QVBoxLayout(formula);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(8);
  column->addWidget(m_lanes, 1);
  column->addWidget(new FeedFigures(m_editor, m_units));
  column->addWidget(new ReasonStrip(m_editor));
  m_productPage = new ProductPage(m_editor);
  // The typing pages scroll on a low screen; the formula shrinks its lanes instead.
  m_pages->addWidget(scrolling(water));
  m_pages->addWidget(scrolling(target));
  m_pages->addWidget(formula);
  m_pages->addWidget(scrolling(m_productPage));
  auto* bench = new BenchPage(m_editor, m_units);
  m_pages->addWidget(bench);
  connect(bench, &BenchPage::message, this, &MainWindow::say);
  connect(bench, &BenchPage::pdfAsked, this, [this] { m_files->exportSheet(); });
  connect(bench, &BenchPage::printAsked, this, [this] { m_files->printSheet(); });
  connect(water, &WaterPage::message, this, &MainWindow::say);
  connect(target, &TargetPage::message, this, &MainWindow::say);
  connect(m_productPage, &ProductPage::message, this, &MainWindow::say);
  connect(m_productPage, &ProductPage::done, this, [this] { showStation(2); });
  return m_pages;
}

void MainWindow::showStation(int index) {
  constexpr int stocks = 3, bench = 4;
  const int page = index == stocks  ? static_cast<int>(FormulaStation)
                   : index == bench ? static_cast<int>(BenchStation)
                                    : index;
  m_pages->setCurrentIndex(page);
  m_side->setCurrentIndex(page == WaterStation ? 1 : 0); // beside the water stands its acid
  m_line->setCurrent(index);
  if (index == stocks) {
    if (auto* factor = findChild<QWidget*>("stockFactor")) factor->setFocus(Qt::ShortcutFocusReason);
  } else if (page == FormulaStation) {
    m_lanes->setFocus();
  }
}

void MainWindow::askForProduct(const std::string& id) {
  m_pages->setCurrentIndex(ProductStation);
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
  const auto file =
      m_draft.filePath().isEmpty() ? QString("not in a file yet") : QFileInfo(m_draft.filePath()).fileName();
  setWindowTitle(QString("%1[*] (%2) — Butte").arg(name, file));
  setWindowModified(m_editor.isUnsaved());
}

void MainWindow::closeEvent(QCloseEvent* event) {
  if (m_files->mayLeave())
    event->accept();
  else
    event->ignore();
}

} // namespace butte::app
