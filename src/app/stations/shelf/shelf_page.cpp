#include "stations/shelf/shelf_page.h"

#include "book/order_table.h"
#include "document/book_desk.h"
#include "document/formula_file.h"
#include "fields/number_field.h"
#include "paint/beside_or_below.h"
#include "paint/closed_text.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "paint/scrolling.h"
#include "paint/theme.h"
#include "print/order_paper.h"
#include "print/paper.h"
#include "refresh/while_seen.h"
#include "services/prompts.h"
#include "services/units_shown.h"
#include "stations/shelf/agenda_view.h"
#include "stations/shelf/delivery_form.h"
#include "stations/shelf/lot_panel.h"
#include "stations/shelf/money_view.h"
#include "stations/shelf/otherwise_panel.h"
#include "stations/shelf/product_plank.h"
#include "wording/agenda_words.h"
#include "wording/record_words.h"
#include "wording/shelf_words.h"
#include "wording/tr.h"

#include <QButtonGroup>
#include <QDir>
#include <QPrintDialog>
#include <QPrinter>
#include <QPushButton>
#include <QSaveFile>
#include <QScrollArea>
#include <QStackedWidget>
#include <QVBoxLayout>
#include <algorithm>

namespace butte::app {

ShelfPage::ShelfPage(BookDesk& desk, FormulaEditor& editor, UnitsShown& units, Prompts& prompts,
                     QWidget* parent)
    : QWidget(parent), m_desk(desk), m_units(units), m_prompts(prompts), m_edits(desk),
      m_heads(new QButtonGroup(this)), m_views(new QStackedWidget), m_side(new QStackedWidget),
      m_lots(new LotPanel(m_edits, units)), m_otherwise(new OtherwisePanel(editor, units)),
      m_form(new DeliveryForm(m_edits, units)), m_money(new MoneyView(editor, units)),
      m_order(new ClosedTextView), m_agenda(new AgendaView(desk, units, prompts)),
      m_seen(new WhileSeen(this, [this] { refresh(); })) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(8);
  m_views->addWidget(makeShelfView());
  m_views->addWidget(makeOrderView());
  m_views->addWidget(m_money);
  m_views->addWidget(m_agenda);
  makeHead(column);
  column->addWidget(m_views, 1);
  m_views->hide(); // until it is known what is there
  column->addStretch();
  m_lots->scaleShows = [this] { return scaleShows ? scaleShows() : std::nullopt; };
  connect(m_lots, &LotPanel::deliveryAsked, this, [this] { deliver(m_product); });
  connect(m_lots, &LotPanel::correctionAsked, this, [this](const QString& uid) {
    const auto lot = m_edits.lot(uid.toStdString());
    if (!lot) return emit message(problemWords(lot.problem()));
    m_form->correct(uid.toStdString(), *lot);
    m_side->setCurrentIndex(1);
  });
  connect(m_form, &DeliveryForm::done, this, [this](const QString& product) {
    m_side->setCurrentIndex(0);
    if (!product.isEmpty()) showProduct(product.toStdString());
  });
  connect(m_lots, &LotPanel::message, this, &ShelfPage::message);
  connect(m_form, &DeliveryForm::message, this, &ShelfPage::message);
  connect(m_otherwise, &OtherwisePanel::message, this, &ShelfPage::message);
  connect(m_agenda, &AgendaView::message, this, &ShelfPage::message);
  connect(m_money, &MoneyView::message, this, &ShelfPage::message);
  constexpr int unseenDelayMilliseconds = 2000;
  m_unseen.setSingleShot(true);
  m_unseen.setInterval(unseenDelayMilliseconds);
  connect(&m_unseen, &QTimer::timeout, this, [this] {
    if (!isVisible()) refresh();
  });
  connect(&desk, &BookDesk::bookOpened, this, &ShelfPage::outdate);
  connect(&desk, &BookDesk::changed, this, [this](const std::vector<book::Ref>& refs) {
    using book::Kind;
    const auto any = [&](std::initializer_list<Kind> kinds) {
      return std::any_of(refs.begin(), refs.end(), [&](const book::Ref& ref) {
        return std::find(kinds.begin(), kinds.end(), ref.kind) != kinds.end();
      });
    };
    if (any({Kind::Lot, Kind::ShelfLine, Kind::Batch, Kind::TankLine, Kind::Chore, Kind::ChoreLine,
             Kind::ScaleCheck, Kind::Water}))
      return outdate();
    if (any({Kind::Formula})) m_seen->outdate(); // of each key at the Formula station the card need not know
  });
  connect(&units, &UnitsShown::changed, this, [this] { m_seen->outdate(); });
}

void ShelfPage::outdate() {
  m_seen->outdate();
  if (!isVisible()) m_unseen.start();
}

void ShelfPage::makeHead(QVBoxLayout* column) {
  auto* heads = new FlowRow;
  const auto add = [&](const QString& words, const char* object, int view) {
    auto* button = new QPushButton(words);
    button->setObjectName(object);
    button->setCheckable(true);
    button->setChecked(view == 0);
    m_heads->addButton(button, view);
    heads->addWidget(button);
  };
  add(tr("Shelf"), "shelfBags", 0);
  add(tr("To buy"), "shelfOrder", 1);
  add(tr("Money"), "shelfMoney", 2);
  add(tr("Calendar"), "shelfAgenda", 3);
  connect(m_heads, &QButtonGroup::idClicked, m_views, &QStackedWidget::setCurrentIndex);
  heads->addStretch();
  m_weeksField = new NumberField({.name = tr("weeks that the shelf is to do"),
                                  .unit = tr("weeks"),
                                  .least = 1,
                                  .most = core::mostWeeksAhead});
  m_weeksField->setObjectName("shelfWeeks");
  m_weeksField->setFixedWidth(60);
  m_weeksField->show(QString::number(m_weeks));
  m_weeksField->onTyped = [this](const QString& digits) {
    m_weeks = std::clamp(static_cast<int>(digits.toDouble()), 1, core::mostWeeksAhead);
    m_seen->outdate();
  };
  m_weeksField->onMessage = [this](const QString& words) { emit message(words); };
  heads->addTogether({new PlainLabel(tr("is to do for")), m_weeksField, new PlainLabel(tr("weeks"))});
  auto* delivery = new QPushButton(tr("A delivery came…"));
  delivery->setObjectName("newDelivery");
  connect(delivery, &QPushButton::clicked, this, [this] { deliver({}); });
  heads->addWidget(delivery);
  column->addLayout(heads);
}

QWidget* ShelfPage::makeShelfView() {
  auto* planks = new QWidget;
  m_plankColumn = new QVBoxLayout(planks);
  m_plankColumn->setContentsMargins(0, 0, 4, 0);
  m_plankColumn->setSpacing(4);
  m_plankColumn->addStretch();
  auto* view = new BesideOrBelow(16);
  m_plankRoom = scrolling(planks);
  m_plankRoom->setMinimumSize(460, 200);
  view->add(m_plankRoom, 3);
  auto* lots = new QWidget;
  auto* column = new QVBoxLayout(lots);
  column->setContentsMargins(0, 0, 0, 0);
  column->addWidget(m_lots, 1);
  column->addWidget(m_otherwise);
  m_side->addWidget(lots);
  m_side->addWidget(scrolling(m_form));
  view->add(m_side, 2);
  return view;
}

QWidget* ShelfPage::makeOrderView() {
  auto* view = new QWidget;
  auto* column = new QVBoxLayout(view);
  column->setContentsMargins(0, 0, 0, 0);
  m_order->setObjectName("orderPaper");
  m_order->setAccessibleName(tr("what to buy"));
  column->addWidget(m_order, 1);
  auto* row = new FlowRow;
  const auto add = [&](const QString& words, const char* object, void (ShelfPage::*does)()) {
    auto* button = new QPushButton(words);
    button->setObjectName(object);
    connect(button, &QPushButton::clicked, this, does);
    row->addWidget(button);
  };
  add(tr("As a table…"), "orderTable", &ShelfPage::writeTable);
  add(tr("As PDF…"), "orderPdf", &ShelfPage::writePaper);
  add(tr("Print…"), "orderPrint", &ShelfPage::printPaper);
  column->addLayout(row);
  return view;
}

void ShelfPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  m_unseen.stop();
  m_seen->outdate(); // time has passed
}

void ShelfPage::focusFirst() {
  if (m_planks.empty()) return setFocus();
  for (auto* plank : m_planks)
    if (plank->product() == m_product) return plank->setFocus(Qt::ShortcutFocusReason);
  m_planks.front()->setFocus(Qt::ShortcutFocusReason);
}

void ShelfPage::showView(View view) {
  m_heads->button(static_cast<int>(view))->setChecked(true);
  m_views->setCurrentIndex(static_cast<int>(view));
}

void ShelfPage::deliver(const std::string& product) {
  if (!m_desk.isOpen() || m_desk.isReadOnly()) return emit message(tr("This book can only be looked at."));
  showView(View::Bags);
  m_form->begin(product);
  m_side->setCurrentIndex(1);
}

void ShelfPage::refresh() {
  if (!m_desk.isOpen()) {
    m_work.cancel();
    return take({});
  }
  // What is still gathering must be on the disk where another thread reads it.
  m_desk.book().store();
  m_work.start<ShelfStory>(
      [path = m_desk.book().place(), weeks = m_weeks] { return shelfStoryBeside(path, weeks); },
      [this](ShelfStory story) { take(std::move(story)); });
}

void ShelfPage::take(ShelfStory story) {
  if (story.trouble) return emit message(problemWords(*story.trouble));
  m_story = std::make_shared<const ShelfStory>(std::move(story));
  tellCard();
  if (isVisible()) showStory(); // else when it comes there: showEvent() asks anew
}

void ShelfPage::showStory() {
  m_views->show();
  if (!m_story->of(m_product))
    m_product = m_story->products.empty() ? std::string() : m_story->products.front().id;
  refreshPlanks();
  showProduct(m_product);
  refreshOrder();
  m_money->show(m_story);
  m_agenda->show(m_story, !m_desk.isOpen() || m_desk.isReadOnly());
}

void ShelfPage::tellCard() {
  const book::ProductOutlook* first = nullptr;
  for (const auto& product : m_story->products)
    if (!first && !product.lots.empty() && product.weeksLeft) first = &product;
  const auto toDo = todayText(*m_story);
  const auto hurry = first ? hurryText(*first) : QString();
  // What there is no room for is left out whole: the name last.
  const auto lasts = !first
                         ? tr("no delivery told")
                         : tr("%1 · %2").arg(hurry.isEmpty() ? lastsText(*first) : hurry, qtext(first->name));
  emit told(lasts, toDo.isEmpty() ? tr("nothing to do today") : toDo, !hurry.isEmpty() || !toDo.isEmpty());
}

void ShelfPage::refreshPlanks() {
  const auto& products = m_story->products;
  const bool same =
      products.size() == m_planks.size() &&
      std::equal(products.begin(), products.end(), m_planks.begin(),
                 [](const auto& product, const auto* plank) { return product.id == plank->product(); });
  if (!same) {
    const bool hadFocus =
        std::any_of(m_planks.begin(), m_planks.end(), [](const auto* one) { return one->hasFocus(); });
    for (auto* plank : m_planks)
      delete plank;
    m_planks.clear();
    for (const auto& product : products) {
      auto* plank = new ProductPlank(product.id);
      plank->setObjectName("plank" + QString::number(m_planks.size()));
      connect(plank, &QAbstractButton::clicked, this, [this, id = product.id] {
        m_side->setCurrentIndex(0);
        showProduct(id);
      });
      m_plankColumn->insertWidget(static_cast<int>(m_planks.size()), plank);
      m_planks.push_back(plank);
    }
    if (hadFocus) focusFirst();
  }
  for (auto* plank : m_planks)
    plank->show(*m_story, m_units);
}

void ShelfPage::showProduct(const std::string& product) {
  m_product = product;
  for (auto* plank : m_planks) {
    plank->setChecked(plank->product() == product);
    if (plank->isChecked()) m_plankRoom->ensureWidgetVisible(plank);
  }
  const bool readOnly = !m_desk.isOpen() || m_desk.isReadOnly();
  m_lots->show(m_story, product, readOnly);
  const auto* outlook = m_story->of(product);
  m_otherwise->show(outlook ? product : std::string(), outlook ? qtext(outlook->name) : QString(),
                    outlook ? outlook->left : core::Mass());
}

void ShelfPage::refreshOrder() {
  m_order->setHtml(orderPaper(*m_story, m_weeks, m_units));
}

void ShelfPage::writeTable() {
  const auto path = m_prompts.fileToMake(tr("What to buy, as a table"),
                                         QDir::home().filePath(tr("to buy") + ".csv"), tr("Tables (*.csv)"));
  if (path.isEmpty()) return;
  const auto table = book::orderTable(m_story->shelf, m_story->products, m_units.measures());
  QSaveFile file(path);
  if (!file.open(QIODevice::WriteOnly) || !writeAll(file, table) || !file.commit())
    return emit message(tr("%1 can't be written: %2").arg(path, file.errorString()));
  emit message(tr("The list is in %1.").arg(path));
}

void ShelfPage::writePaper() {
  const auto path = m_prompts.fileToMake(tr("What to buy, as PDF"),
                                         QDir::home().filePath(tr("to buy") + ".pdf"), tr("PDF (*.pdf)"));
  if (path.isEmpty()) return;
  const auto trouble =
      writePdf({orderPaper(*m_story, m_weeks, m_units)}, m_units.pageSize(), path, tr("To buy"));
  emit message(trouble.isEmpty() ? tr("The list is in %1.").arg(path) : trouble);
}

void ShelfPage::printPaper() {
  QPrinter printer(QPrinter::HighResolution);
  printer.setPageSize(m_units.pageSize());
  QPrintDialog dialog(&printer, this);
  if (dialog.exec() == QDialog::Accepted) paintPages({orderPaper(*m_story, m_weeks, m_units)}, printer);
}

} // namespace butte::app
