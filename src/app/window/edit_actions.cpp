#include "window/edit_actions.h"

#include "edits/formula_edits.h"
#include "window/main_window.h"
#include "wording/tr.h"

#include <QAction>
#include <QMenuBar>
#include <QSettings>

#include <algorithm>

namespace butte::app {

namespace {
constexpr const char* hereKey = "undo/kept_to_formula";
}

EditActions::EditActions(MainWindow& window) : QObject(&window), m_window(window) {
  auto* menu = window.menuBar()->addMenu(tr("&Edit"));
  m_undo = menu->addAction(tr("&Undo"), QKeySequence::Undo, this, [this] {
    refresh(); // what undo is of depends on where one stands
    step(true, m_window.editor().undoWords(), [this] { return m_window.editor().undo(); });
  });
  m_redo = menu->addAction(tr("&Redo"), QKeySequence("Ctrl+Shift+Z"), this, [this] {
    refresh();
    step(false, m_window.editor().redoWords(), [this] { return m_window.editor().redo(); });
  });
  m_undo->setObjectName("undo");
  m_redo->setObjectName("redo");
  m_here = menu->addAction(tr("Undo only in the &open formula"));
  m_here->setObjectName("undoHere");
  m_here->setCheckable(true);
  m_here->setChecked(QSettings("butte", "butte").value(hereKey).toBool());
  connect(m_here, &QAction::toggled, this, [this](bool on) {
    QSettings("butte", "butte").setValue(hereKey, on);
    refresh();
  });
  menu->addSeparator();
  menu->addAction(tr("&Name of the formula…"), QKeySequence("F2"), this, [this] {
    const auto name = m_window.prompts().words(tr("Name of the formula"), tr("Name"),
                                               QString::fromStdString(m_window.editor().document().name));
    if (!name.isEmpty()) FormulaEdits(m_window.editor()).setName(name);
  });
  menu->addAction(tr("Its &crop…"), QKeySequence("Shift+F2"), this, [this] {
    const auto crop =
        m_window.prompts().words(tr("Crop of the formula"), tr("Crop (batches can be searched by it)"),
                                 QString::fromStdString(m_window.editor().document().crop));
    if (!crop.isEmpty()) FormulaEdits(m_window.editor()).setCrop(crop, false);
  });
  connect(menu, &QMenu::aboutToShow, this, &EditActions::refresh);
  connect(&window.editor(), &FormulaEditor::changed, this, &EditActions::refresh);
  connect(&window.desk(), &BookDesk::changed, this, &EditActions::refresh);
  connect(&window.desk(), &BookDesk::bookOpened, this, &EditActions::refresh);
  refresh();
}

namespace {
/// Whether what is done to things of this kind is seen there.
bool isShownAt(Station station, book::Kind kind) {
  using book::Kind;
  switch (kind) {
  case Kind::Formula:
    return true;
  case Kind::Product:
    return infoOf(station).side == StationSide::Shelf;
  case Kind::Vessel:
  case Kind::TankLine:
  case Kind::Reading:
    return station == Station::Tank;
  case Kind::Lot:
  case Kind::ShelfLine:
  case Kind::Chore:
  case Kind::ChoreLine:
    return station == Station::Shelf;
  default:
    return false;
  }
}
} // namespace

/// Steps over one edit. What is not on the screen is never changed without a word: it is asked first, and
/// shown where it stands.
void EditActions::step(bool back, const QString& words, const std::function<bool()>& go) {
  const bool elsewhere = isElsewhere(back);
  if (elsewhere &&
      !m_window.prompts().goOn(
          back ? tr("Undo something elsewhere?") : tr("Redo something elsewhere?"),
          tr("The next step belongs to something this screen does not show: %1.\n\nIt is in the Book.")
              .arg(words),
          back ? tr("Undo it") : tr("Redo it")))
    return;
  if (!go()) return; // refused, and said so
  if (elsewhere) m_window.showStation(Station::Book);
  m_window.say((back ? tr("Undone: %1") : tr("Redone: %1")).arg(words));
}

/// A step that touches neither the formula in hand nor, while the book is looked at, anything of it.
bool EditActions::isElsewhere(bool back) const {
  auto& desk = m_window.desk();
  if (!desk.isOpen() || m_window.station() == Station::Book || m_window.editor().isUndoKeptHere())
    return false;
  // An own product comes into the book with its press beside the shelf, and goes with one there.
  const auto touched = desk.book().touchedBy(back);
  return !touched.empty() && std::none_of(touched.begin(), touched.end(), [&](const book::Ref& ref) {
    return ref == desk.inHand() || isShownAt(m_window.station(), ref.kind);
  });
}

void EditActions::refresh() {
  auto& editor = m_window.editor();
  editor.keepUndoHere(m_here->isChecked() && m_window.station() != Station::Book);
  m_undo->setEnabled(editor.canUndo());
  m_redo->setEnabled(editor.canRedo());
  m_undo->setText(editor.canUndo() ? tr("&Undo %1").arg(editor.undoWords()) : tr("&Undo"));
  m_redo->setText(editor.canRedo() ? tr("&Redo %1").arg(editor.redoWords()) : tr("&Redo"));
}

} // namespace butte::app
