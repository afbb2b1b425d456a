#include "stations/book/book_page.h"

#include "document/book_desk.h"
#include "document/formula_editor.h"
#include "edits/keep_and_use.h"
#include "paint/closed_text.h"
#include "paint/flow_row.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "services/units_shown.h"
#include "stations/book/batch_filter_row.h"
#include "stations/book/batch_list.h"
#include "stations/book/batch_panel.h"
#include "stations/book/batch_picture.h"
#include "stations/book/compare_view.h"
#include "stations/book/copies_panel.h"
#include "stations/book/reading_list.h"
#include "stations/book/thing_list.h"
#include "stations/book/trail_panel.h"
#include "stations/book/vessels_now.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "words.h"

#include <QButtonGroup>
#include <QHBoxLayout>
#include <QLabel>
#include <QListView>
#include <QPushButton>
#include <QScrollArea>
#include <QStackedWidget>
#include <QTextBrowser>
#include <QToolButton>
#include <QVBoxLayout>

namespace butte::app {

using book::Kind;
using book::Ref;

namespace {
enum Center { BatchCenter, ThingCenter, ReadingCenter, CopyCenter, CompareCenter, SheetCenter };
enum SidePage { BatchSide, TrailSide, HelpSide };

/// The parts of the book in the order of their buttons: what they are called, by tests too, and which kind of
/// thing they list.
struct Part {
  const char* name;
  const char* objectName;
  std::optional<Kind> kind{};
};
const std::array<Part, BookPage::Copies + 1>& parts() {
  static const std::array<Part, BookPage::Copies + 1> all{
      {{QT_TRANSLATE_NOOP("butte", "Batches"), "sectionBatches"},
       {QT_TRANSLATE_NOOP("butte", "Formulas"), "sectionFormulas", Kind::Formula},
       {QT_TRANSLATE_NOOP("butte", "Waters"), "sectionWaters", Kind::Water},
       {QT_TRANSLATE_NOOP("butte", "Targets"), "sectionTargets", Kind::Target},
       {QT_TRANSLATE_NOOP("butte", "Products"), "sectionProducts", Kind::Product},
       {QT_TRANSLATE_NOOP("butte", "Stock plans"), "sectionStockPlans", Kind::StockPlan},
       {QT_TRANSLATE_NOOP("butte", "Vessels"), "sectionVessels", Kind::Vessel},
       {QT_TRANSLATE_NOOP("butte", "Readings"), "sectionReadings"},
       {QT_TRANSLATE_NOOP("butte", "Papers"), "sectionPapers", Kind::PaperLayout},
       {QT_TRANSLATE_NOOP("butte", "Bin"), "sectionBin"},
       {QT_TRANSLATE_NOOP("butte", "Copies"), "sectionCopies"}}};
  return all;
}

std::optional<Kind> kindOf(BookPage::Section section) {
  return parts()[section].kind;
}

QListView* listFor(QAbstractItemModel* model, QAbstractItemDelegate* delegate, const QString& name) {
  auto* list = new QListView;
  list->setObjectName(name);
  list->setModel(model);
  list->setItemDelegate(delegate);
  list->setUniformItemSizes(true);
  list->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
  return list;
}
} // namespace

BookPage::BookPage(BookDesk& desk, FormulaEditor& editor, UnitsShown& units, Prompts& prompts,
                   QWidget* parent)
    : QWidget(parent), m_desk(desk), m_editor(editor), m_units(units), m_prompts(prompts),
      m_sections(new QButtonGroup(this)), m_center(new QStackedWidget), m_sideStack(new QStackedWidget),
      m_batches(new BatchModel(desk, this)), m_things(new ThingModel(this)) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(8);
  column->addWidget(makeSections());
  m_center->addWidget(makeBatches());
  m_center->addWidget(makeThings());
  m_readings = new ReadingList(desk);
  m_copies = new CopiesPanel(desk, prompts);
  m_compare = new CompareView(units);
  m_sheet = new ClosedTextView;
  m_sheet->setObjectName("keptSheet");
  m_sheet->setStyleSheet("background: white; color: black");
  m_center->addWidget(m_readings);
  m_center->addWidget(m_copies);
  auto* area = new QScrollArea;
  area->setWidgetResizable(true);
  area->setFrameShape(QFrame::NoFrame);
  area->setWidget(m_compare);
  m_center->addWidget(makeAside(area));
  m_center->addWidget(makeAside(m_sheet));
  column->addWidget(m_center, 1);

  m_batchPanel = new BatchPanel(desk, units);
  m_trail = new TrailPanel(desk, prompts);
  m_empty = new WrappedLabel;
  m_empty->setAlignment(Qt::AlignTop);
  m_empty->setProperty("soft", true);
  m_vesselsNow = new VesselsNow(desk);
  for (auto* page : std::initializer_list<QWidget*>{m_batchPanel, m_trail, makeHelpSide()})
    m_sideStack->addWidget(page);

  connect(&units, &UnitsShown::changed, this, [this] {
    m_readings->showUnits();
    if (m_section == Readings) showSection(m_section); // its help names a temperature
    m_center->update();
  });
  connect(m_batchPanel, &BatchPanel::message, this, &BookPage::message);
  connect(m_trail, &TrailPanel::message, this, &BookPage::message);
  connect(m_copies, &CopiesPanel::message, this, &BookPage::message);
  connect(m_readings, &ReadingList::message, this, &BookPage::message);
  connect(m_picture, &BatchPicture::explained, this, &BookPage::message);
  connect(m_batchPanel, &BatchPanel::binAsked, this, &BookPage::binBatch);
  connect(m_batchPanel, &BatchPanel::formulaAsked, this, &BookPage::showVersion);
  connect(m_batchPanel, &BatchPanel::sheetAsked, this, [this](const QString& html) {
    m_sheet->setHtml(html);
    m_center->setCurrentIndex(SheetCenter);
  });
  connect(m_trail, &TrailPanel::useAsked, this, &BookPage::use);
  connect(m_trail, &TrailPanel::compareAsked, this, [this](const SideBySide& sides) {
    m_compare->show(sides);
    m_center->setCurrentIndex(CompareCenter);
  });
  connect(&desk, &BookDesk::changed, this, &BookPage::onChanged);
  connect(&desk, &BookDesk::bookOpened, this, [this] {
    m_batchPanel->show("");
    m_trail->show({});
    refresh();
  });
  m_later.setSingleShot(true);
  m_later.setInterval(400);
  connect(&m_later, &QTimer::timeout, this, &BookPage::refresh);
  showSection(Batches);
}

/// What a section without a thing in hand has to say.
QWidget* BookPage::makeHelpSide() {
  auto* box = new QWidget;
  auto* column = new QVBoxLayout(box);
  column->setContentsMargins(0, 0, 4, 0);
  column->setSpacing(10);
  column->addWidget(m_vesselsNow);
  column->addWidget(m_empty);
  column->addStretch();
  auto* area = new QScrollArea;
  area->setWidgetResizable(true);
  area->setFrameShape(QFrame::NoFrame);
  area->setWidget(box);
  return area;
}

QWidget* BookPage::side() const {
  return m_sideStack;
}

QWidget* BookPage::makeSections() {
  auto* box = new QWidget;
  auto* row = new FlowRow(box, 3);
  for (int i = 0; i <= Copies; ++i) {
    auto* button = new QToolButton;
    button->setText(app::tr(parts()[static_cast<std::size_t>(i)].name));
    button->setObjectName(parts()[static_cast<std::size_t>(i)].objectName);
    button->setCheckable(true);
    button->setFont(faceOf(13, true));
    button->setStyleSheet("padding: 4px 6px"); // eleven of them beside each other at 1280 dots
    m_sections->addButton(button, i);
    row->addWidget(button);
  }
  m_sections->button(0)->setChecked(true);
  connect(m_sections, &QButtonGroup::idClicked, this,
          [this](int id) { showSection(static_cast<Section>(id)); });
  return box;
}

QWidget* BookPage::makeBatches() {
  auto* box = new QWidget;
  auto* column = new QVBoxLayout(box);
  column->setContentsMargins(0, 0, 0, 0);
  m_picture = new BatchPicture(m_desk);
  m_batchList = listFor(m_batches, new BatchDelegate(*m_batches, m_units, this), "batchList");
  connect(m_batchList->selectionModel(), &QItemSelectionModel::currentChanged, this, &BookPage::chooseBatch);
  m_filter = new BatchFilterRow(m_desk);
  connect(m_filter, &BatchFilterRow::changed, this, &BookPage::applyFilter);
  connect(m_filter, &BatchFilterRow::message, this, &BookPage::message);
  connect(m_picture, &BatchPicture::stretchChosen, this, [this](book::Moment from, book::Moment before) {
    m_filter->setStretch(from, before);
    m_batches->show(m_filter->filter());
    if (m_batches->rowCount() > 0) m_batchList->setCurrentIndex(m_batches->index(0));
  });
  column->addWidget(m_picture);
  column->addWidget(m_filter);
  column->addWidget(m_batchList, 1);
  return box;
}

QWidget* BookPage::makeThings() {
  m_thingList = listFor(m_things, new ThingDelegate(*m_things, this), "thingList");
  connect(m_thingList->selectionModel(), &QItemSelectionModel::currentChanged, this, &BookPage::chooseThing);
  connect(m_thingList, &QListView::activated, this, [this](const QModelIndex& index) {
    const auto* head = m_things->head(index);
    if (head && !head->binnedAt && head->ref.kind != Kind::Batch && head->ref.kind != Kind::Vessel &&
        head->ref.kind != Kind::PaperLayout)
      use(head->ref);
  });
  m_keep = new QPushButton;
  m_keep->setObjectName("keepInBook");
  connect(m_keep, &QPushButton::clicked, this, &BookPage::keepCurrent);
  auto* box = new QWidget;
  auto* column = new QVBoxLayout(box);
  column->setContentsMargins(0, 0, 0, 0);
  column->addWidget(m_thingList, 1);
  column->addWidget(m_keep, 0, Qt::AlignLeft);
  return box;
}

QWidget* BookPage::makeAside(QWidget* content) {
  auto* box = new QWidget;
  auto* column = new QVBoxLayout(box);
  column->setContentsMargins(0, 0, 0, 0);
  auto* back = new QPushButton(tr("← Back to the list"));
  back->setShortcut(QKeySequence(Qt::Key_Escape));
  connect(back, &QPushButton::clicked, this, [this] { showSection(m_section); });
  auto* row = new QHBoxLayout;
  row->addWidget(back);
  row->addStretch();
  column->addLayout(row);
  column->addWidget(content, 1);
  return box;
}

void BookPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  refresh();
}

void BookPage::onChanged(const std::vector<Ref>& refs) {
  if (!isVisible()) return;
  for (const auto& ref : refs) {
    if (ref.kind == Kind::Batch && ref.uid == m_batchPanel->uid()) m_batchPanel->refresh();
  }
  m_later.start(); // a list need not be read anew at every key
}

void BookPage::refresh() {
  if (!isVisible() || !m_desk.isOpen()) return;
  const auto uid = m_batchPanel->uid();
  const auto thing = m_trail->ref();
  m_keep->setVisible(!m_keep->text().isEmpty() && !m_desk.isReadOnly());
  switch (m_section) {
  case Batches: {
    m_filter->refreshCrops();
    applyFilter();
    if (const int row = m_batches->rowOf(uid); row >= 0)
      m_batchList->setCurrentIndex(m_batches->index(row));
    else if (uid.empty() && m_batches->rowCount() > 0)
      m_batchList->setCurrentIndex(m_batches->index(0));
    break;
  }
  case Readings:
    m_readings->reload();
    m_vesselsNow->reload();
    break;
  case Copies:
    m_copies->refresh();
    break;
  default:
    fillThings();
    if (const int row = m_things->rowOf(thing); row >= 0)
      m_thingList->setCurrentIndex(m_things->index(row));
    else if (thing.uid.empty() && m_things->rowCount() > 0) // the first trail can be read at once
      m_thingList->setCurrentIndex(m_things->index(std::max(0, m_things->rowOf(m_desk.inHand()))));
    if (!m_trail->ref().uid.empty()) m_trail->refresh();
  }
}

void BookPage::showSection(Section section) {
  m_section = section;
  m_sections->button(section)->setChecked(true);
  m_center->setCurrentIndex(section == Batches    ? BatchCenter
                            : section == Readings ? ReadingCenter
                            : section == Copies   ? CopyCenter
                                                  : ThingCenter);
  const bool list = section != Readings && section != Copies;
  m_sideStack->setCurrentIndex(!list ? HelpSide : section == Batches ? BatchSide : TrailSide);
  m_empty->setText(section == Readings
                       ? tr("Readings come from the meters: typed in here, or brought in as a table "
                            "(Book menu). EC is kept as at %1 beside what was typed.")
                             .arg(m_units.text(core::Temperature::fromCelsius(25)))
                       : tr("Going back to a copy shows first what would change. What stands now is "
                            "kept as a copy before."));
  m_vesselsNow->setVisible(section == Readings);
  const auto kind = kindOf(section);
  const auto words = kind ? keepWords(*kind) : QString();
  m_keep->setText(words);
  m_keep->setVisible(!words.isEmpty() && !m_desk.isReadOnly());
  if (section != Batches && list) m_trail->show({});
  refresh();
}

void BookPage::applyFilter() {
  if (!m_desk.isOpen()) return;
  const auto filter = m_filter->filter();
  m_batches->show(filter);
  m_picture->show(filter);
}

void BookPage::fillThings() {
  if (m_section == Bin) {
    auto heads = m_desk.book().store().bin();
    if (heads) m_things->show(std::move(heads).value(), m_desk.inHand());
    return;
  }
  const auto kind = kindOf(m_section);
  if (!kind) return;
  if (auto heads = m_desk.book().store().list(*kind, false))
    m_things->show(std::move(heads).value(), m_desk.inHand());
}

void BookPage::chooseBatch(const QModelIndex& index) {
  if (const auto* head = m_batches->head(index)) {
    if (head->uid != m_batchPanel->uid()) m_batchPanel->show(head->uid); // a field in use is not built anew
    m_sideStack->setCurrentIndex(BatchSide);
  }
}

void BookPage::chooseThing(const QModelIndex& index) {
  if (const auto* head = m_things->head(index)) {
    m_trail->show(head->ref);
    m_sideStack->setCurrentIndex(TrailSide);
  }
}

void BookPage::showRecord(const Ref& ref) {
  if (ref.kind == Kind::Batch) {
    showSection(Batches);
    m_batchPanel->show(ref.uid);
    if (const int row = m_batches->rowOf(ref.uid); row >= 0)
      m_batchList->setCurrentIndex(m_batches->index(row));
    return;
  }
  for (int i = 0; i <= Copies; ++i) {
    const auto section = static_cast<Section>(i);
    if (kindOf(section) != ref.kind) continue;
    showSection(section);
    m_trail->show(ref);
    if (const int row = m_things->rowOf(ref); row >= 0) m_thingList->setCurrentIndex(m_things->index(row));
  }
}

void BookPage::showVersion(const std::string& formulaUid, int version) {
  showRecord({Kind::Formula, formulaUid});
  m_trail->choose(version);
}

void BookPage::use(const Ref& ref) {
  if (ref.kind == Kind::Formula) return emit recordAsked(ref);
  emit message(useInFormula(m_desk, m_editor, ref));
}

void BookPage::keepCurrent() {
  if (const auto kind = kindOf(m_section)) emit message(keepFromFormula(m_desk, m_editor, *kind));
  refresh();
}

void BookPage::binBatch() {
  const Ref ref{Kind::Batch, m_batchPanel->uid()};
  if (const auto trouble = m_desk.book().moveToBin(ref, "batch"))
    return emit message(qtext(words::problemText(*trouble)));
  m_batchPanel->show("");
  emit message(tr("The batch lies in the bin. Ctrl+Z takes it out again."));
  refresh();
}

} // namespace butte::app
