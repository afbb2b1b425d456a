#include "window/edit_actions.h"

#include "edits/formula_edits.h"
#include "window/main_window.h"
#include "wording/tr.h"

#include <QAction>
#include <QMenuBar>

namespace butte::app {

EditActions::EditActions(MainWindow& window) : QObject(&window), m_window(window) {
  auto* menu = window.menuBar()->addMenu(tr("&Edit"));
  m_undo = menu->addAction(tr("&Undo"), QKeySequence::Undo, this, [this] {
    const auto words = m_window.editor().undoWords();
    m_window.editor().undo();
    m_window.say(tr("Taken back: %1").arg(words));
  });
  m_redo = menu->addAction(tr("&Redo"), QKeySequence("Ctrl+Shift+Z"), this, [this] {
    const auto words = m_window.editor().redoWords();
    m_window.editor().redo();
    m_window.say(tr("Done again: %1").arg(words));
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
  connect(&window.editor(), &FormulaEditor::changed, this, &EditActions::refresh);
  connect(&window.desk(), &BookDesk::changed, this, &EditActions::refresh);
  connect(&window.desk(), &BookDesk::bookOpened, this, &EditActions::refresh);
  refresh();
}

void EditActions::refresh() {
  const auto& editor = m_window.editor();
  m_undo->setEnabled(editor.canUndo());
  m_redo->setEnabled(editor.canRedo());
  m_undo->setText(editor.canUndo() ? tr("&Undo %1").arg(editor.undoWords()) : tr("&Undo"));
  m_redo->setText(editor.canRedo() ? tr("&Redo %1").arg(editor.redoWords()) : tr("&Redo"));
}

} // namespace butte::app
