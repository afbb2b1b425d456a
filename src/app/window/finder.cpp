#include "window/finder.h"

#include "edits/shelf_edits.h"
#include "edits/target_edits.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "product/catalogue.h"
#include "product/common_names.h"
#include "services/help_topics.h"
#include "target/target.h"
#include "window/main_window.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QAction>
#include <QGraphicsDropShadowEffect>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMenuBar>
#include <QPainter>
#include <QStyledItemDelegate>
#include <QVBoxLayout>

namespace butte::app {

namespace {
constexpr int mostCommands = 8, mostRecords = 12, mostHelp = 6, mostShipped = 6;

bool holdsAll(const QString& text, const QStringList& words) {
  return std::all_of(words.begin(), words.end(),
                     [&](const QString& word) { return text.contains(word, Qt::CaseInsensitive); });
}

void collect(const QMenu* menu, const QString& path, QList<std::pair<QString, QAction*>>& out) {
  for (auto* action : menu->actions()) {
    const auto name = action->text().remove('&').remove("…");
    if (action->isSeparator() || name.isEmpty()) continue;
    if (action->menu())
      collect(action->menu(), path + name + ": ", out);
    else
      out.append({path + name, action});
  }
}
constexpr int detailRole = Qt::UserRole + 1, groupRole = Qt::UserRole + 2;

/// What it is, its name, and what more there is to say, in three columns.
class FoundDelegate : public QStyledItemDelegate {
public:
  using QStyledItemDelegate::QStyledItemDelegate;
  void paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
    const auto& t = theme();
    const bool chosen = option.state & QStyle::State_Selected;
    const QRect r = option.rect;
    p->fillRect(r, chosen ? t.accent : t.card);
    const auto put = [&](QRect box, const QString& text, bool bold, Qt::Alignment side) {
      const auto face = faceOf(14, bold);
      p->setFont(face);
      p->setPen(chosen ? t.accentInk : bold ? t.ink : t.inkSoft);
      p->drawText(box, side | Qt::AlignVCenter,
                  QFontMetrics(face).elidedText(text, Qt::ElideRight, box.width()));
    };
    const auto detail = index.data(detailRole).toString();
    const int room =
        detail.isEmpty() ? 8 : std::min(260, QFontMetrics(faceOf(14)).horizontalAdvance(detail) + 16);
    put(r.adjusted(8, 0, -r.width() + 98, 0), index.data(groupRole).toString(), false, Qt::AlignLeft);
    put(r.adjusted(104, 0, -room - 8, 0), index.data().toString(), true, Qt::AlignLeft);
    put(r.adjusted(r.width() - room, 0, -8, 0), detail, false, Qt::AlignRight);
  }
  QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override { return {100, 27}; }
};
} // namespace

Finder::Finder(MainWindow& window)
    : QFrame(&window), m_window(window), m_text(new QLineEdit), m_list(new QListWidget),
      m_help(new WrappedLabel) {
  setObjectName("finder");
  hide();
  auto* column = new QVBoxLayout(this);
  m_text->setObjectName("finderText");
  m_text->setPlaceholderText(tr("Find a water, product, target, formula, batch, lot, command or help …"));
  m_text->setFont(faceOf(18));
  m_text->installEventFilter(this);
  m_list->setObjectName("finderList");
  m_list->setFocusPolicy(Qt::NoFocus);
  m_list->setItemDelegate(new FoundDelegate(m_list));
  m_list->setUniformItemSizes(true);
  m_help->setObjectName("finderHelp");
  m_help->setTextFormat(Qt::RichText);
  m_help->hide();
  column->addWidget(m_text);
  column->addWidget(m_list, 1);
  column->addWidget(m_help);
  auto* shadow = new QGraphicsDropShadowEffect(this);
  shadow->setBlurRadius(40);
  setGraphicsEffect(shadow);
  connect(m_text, &QLineEdit::textChanged, this, &Finder::look);
  connect(m_list, &QListWidget::itemClicked, this, &Finder::take);
}

void Finder::open() {
  const auto& t = theme();
  setStyleSheet(QString("#finder { background: %1; border: 2px solid %2; border-radius: 8px }")
                    .arg(t.page.name(), t.accent.name()));
  m_text->clear();
  look();
  place();
  show();
  raise();
  m_text->setFocus();
}

void Finder::type(const QString& text) {
  m_text->setText(text);
}

void Finder::place() {
  const int width = std::min(720, m_window.width() - 80);
  setGeometry((m_window.width() - width) / 2, 70, width, std::min(520, m_window.height() - 120));
}

QStringList Finder::shownNames() const {
  QStringList out;
  for (const auto& found : m_found)
    out << found.name;
  return out;
}

void Finder::showContents() {
  open();
  type(contentsWord() + " ");
}

QString Finder::contentsWord() {
  return tr("help");
}

void Finder::look() {
  m_found.clear();
  m_help->hide();
  const auto text = m_text->text().trimmed();
  const auto words = text.split(' ', Qt::SkipEmptyParts);
  addRecords(text);
  if (!words.isEmpty()) addShipped(words);
  addCommands(words);
  addHelp(words);
  fill();
}

void Finder::addRecords(const QString& text) {
  if (text.isEmpty() || !m_window.desk().isOpen()) return;
  const auto hits = m_window.desk().book().store().search(text.toStdString(), mostRecords);
  if (!hits) return;
  for (const auto& hit : *hits)
    m_found.push_back({kindText(hit.ref.kind),
                       qtext(hit.name),
                       qtext(hit.detail),
                       [this, ref = hit.ref] { m_window.showRecord(ref); },
                       {}});
}

namespace {

QStringList namesOf(const core::CatalogueProduct& product) {
  QStringList out;
  for (const auto& name : core::commonNamesOf(product.id))
    out << qtext(name);
  return out;
}

} // namespace

void Finder::addShipped(const QStringList& words) {
  auto& editor = m_window.editor();
  int count = 0;
  for (const auto& product : core::catalogue()) {
    const auto name = qtext(product.shortName);
    const auto known = namesOf(product);
    if (!holdsAll(name + " " + qtext(product.name) + " " + qtext(product.formulaText) + " " + known.join(" "),
                  words) ||
        ++count > mostShipped)
      continue;
    const int at = editor.indexOf(product.id);
    // By the name that was looked for, where that is another.
    const auto meant = std::find_if(known.begin(), known.end(), [&](const QString& n) {
      return holdsAll(n, words) && !holdsAll(name, words);
    });
    m_found.push_back({tr("product"),
                       meant == known.end() ? name : tr("%1: %2").arg(*meant, name),
                       at >= 0 ? tr("on this shelf") : tr("shipped; puts it on this shelf"),
                       [this, &editor, id = product.id, name, at] {
                         if (at < 0) ShelfEdits(editor).add(id, name);
                         m_window.showStation(Station::Formula);
                       },
                       {}});
  }
  count = 0;
  for (const auto& target : core::targetCatalogue()) {
    const auto name = qtext(target.name);
    if (!holdsAll(name + " " + qtext(target.crop) + " " + qtext(target.stage), words) ||
        ++count > mostShipped)
      continue;
    m_found.push_back({tr("target"),
                       name,
                       tr("shipped; takes it for this formula"),
                       [this, &editor, &target] {
                         TargetEdits(editor).take(target, false);
                         m_window.showStation(Station::Target);
                       },
                       {}});
  }
}

void Finder::addCommands(const QStringList& words) {
  QList<std::pair<QString, QAction*>> actions;
  for (auto* top : m_window.menuBar()->actions()) {
    if (top->menu()) collect(top->menu(), {}, actions);
  }
  int count = 0;
  for (const auto& [name, action] : actions) {
    if (!action->isEnabled() || !holdsAll(name, words) || ++count > mostCommands) continue;
    m_found.push_back({"command",
                       name,
                       action->shortcut().toString(QKeySequence::NativeText),
                       [action = action] { action->trigger(); },
                       {}});
  }
}

void Finder::addHelp(const QStringList& words) {
  if (words.isEmpty()) return;
  // "help" alone lists all that there is.
  const bool all = words.front().compare(contentsWord(), Qt::CaseInsensitive) == 0;
  const auto sought = all ? words.mid(1) : words;
  int count = 0;
  for (const auto& [title, text] : helpTopics()) {
    if (!holdsAll(title + " " + text, sought) || (!all && ++count > mostHelp)) continue;
    m_found.push_back({tr("help"), title, {}, {}, text});
  }
}

void Finder::fill() {
  m_list->clear();
  for (const auto& found : m_found) {
    auto* item = new QListWidgetItem(found.name, m_list);
    item->setData(groupRole, found.group);
    item->setData(detailRole, found.detail);
  }
  if (m_found.empty()) m_list->addItem(tr("Nothing of that name."));
  m_list->setCurrentRow(0);
}

void Finder::take() {
  const auto row = static_cast<std::size_t>(std::max(0, m_list->currentRow()));
  if (row >= m_found.size()) return;
  const auto found = m_found[row];
  if (!found.act) {
    m_help->setText("<b>" + found.name.toHtmlEscaped() + "</b><br>" + found.help.toHtmlEscaped());
    m_help->show();
    return;
  }
  hide();
  m_window.setFocus();
  found.act();
}

bool Finder::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::FocusOut) {
    const auto reason = static_cast<QFocusEvent*>(event)->reason();
    if (reason == Qt::MouseFocusReason || reason == Qt::TabFocusReason) hide(); // the hand has gone elsewhere
  }
  if (event->type() != QEvent::KeyPress) return QFrame::eventFilter(watched, event);
  const int rows = m_list->count();
  switch (static_cast<QKeyEvent*>(event)->key()) {
  case Qt::Key_Escape:
    hide();
    m_window.setFocus();
    return true;
  case Qt::Key_Down:
    m_list->setCurrentRow(std::min(rows - 1, m_list->currentRow() + 1));
    return true;
  case Qt::Key_Up:
    m_list->setCurrentRow(std::max(0, m_list->currentRow() - 1));
    return true;
  case Qt::Key_Return:
  case Qt::Key_Enter:
    take();
    return true;
  default:
    return QFrame::eventFilter(watched, event);
  }
}

FinderActions::FinderActions(MainWindow& window) : QObject(&window) {
  auto* finder = new Finder(window);
  auto* menu = window.menuBar()->addMenu(tr("&Help"));
  menu->addAction(tr("&Find anything…"), QKeySequence("Ctrl+K"), finder, &Finder::open);
  menu->addAction(tr("&Contents"), QKeySequence("F1"), finder, &Finder::showContents);
  menu->addAction(tr("First &steps"), QKeySequence("Shift+F1"), &window, &MainWindow::showFirstStart);
}

} // namespace butte::app
