#include "window/edit_actions.h"

#include "edits/formula_edits.h"
#include "window/main_window.h"

#include <QAction>
#include <QMenuBar>

namespace butte::app {

EditActions::EditActions(MainWindow& window) : QObject(&window), m_window(window) {
  auto* menu = window.menuBar()->addMenu("&Edit");
  m_undo = menu->addAction("&Undo", QKeySequence::Undo, this, [this] {
    const auto words = m_window.editor().undoWords();
    m_window.editor().undo();
    m_window.say("Taken back: " + words);
  });
  m_redo = menu->addAction("&Redo", QKeySequence("Ctrl+Shift+Z"), this, [this] {
    const auto words = m_window.editor().redoWords();
    m_window.editor().redo();
    m_window.say("Done again: " + words);
  });
  menu->addSeparator();
  menu->addAction("&Name of the formula…", QKeySequence("F2"), this, [this] {
    const auto name = m_window.prompts().words("Name of the formula", "Name",
                                               QString::fromStdString(m_window.editor().document().name));
    if (!name.isEmpty()) FormulaEdits(m_window.editor()).setName(name);
  });
  menu->addAction("Its &crop…", QKeySequence("Shift+F2"), this, [this] {
    const auto crop = m_window.prompts().words("Crop of the formula", "Crop (batches can be searched by it)",
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
  m_undo->setText(editor.canUndo() ? "&Undo " + editor.undoWords() : QString("&Undo"));
  m_redo->setText(editor.canRedo() ? "&Redo " + editor.redoWords() : QString("&Redo"));
}

} // namespace butte::app
