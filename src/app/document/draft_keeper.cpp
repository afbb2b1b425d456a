#include "document/draft_keeper.h"

#include "document/formula_editor.h"
#include "document/formula_file.h"
#include "words.h"

#include <QDir>
#include <QFile>

namespace butte::app {

namespace {
constexpr int quietMilliseconds = 250; // long enough to bundle a burst of keys, short enough to lose next to nothing
}

DraftKeeper::DraftKeeper(FormulaEditor& editor, QString folder, QObject* parent)
    : QObject(parent), m_editor(editor), m_folder(std::move(folder)) {
  m_timer.setSingleShot(true);
  m_timer.setInterval(quietMilliseconds);
  connect(&m_timer, &QTimer::timeout, this, &DraftKeeper::writeNow);
  connect(&editor, &FormulaEditor::changed, this, [this] {
    if (m_editor.isUnsaved()) m_timer.start();
    else discard();
  });
}

QString DraftKeeper::path() const { return m_folder + "/draft.json"; }

bool DraftKeeper::takeUp() {
  if (!QFile::exists(path())) return false;
  auto json = readFormulaFile(path());
  if (!json) {
    // Kept for a person to look at; never silently thrown away.
    QFile::remove(path() + ".unreadable");
    QFile::rename(path(), path() + ".unreadable");
    return false;
  }
  exchange::Json formula = *json;
  if (formula.contains("x_draft_of")) {
    if (formula["x_draft_of"].is_string()) m_filePath = QString::fromStdString(formula["x_draft_of"].get<std::string>());
    formula.erase("x_draft_of");
  }
  m_editor.load(formula, true);
  return true;
}

void DraftKeeper::writeNow() {
  m_timer.stop();
  if (!m_editor.isUnsaved()) return;
  QDir().mkpath(m_folder);
  exchange::Json json = m_editor.json();
  if (!m_filePath.isEmpty()) json["x_draft_of"] = m_filePath.toStdString();
  if (const auto problem = writeFormulaFile(path(), json))
    emit cantWrite("The draft can't be kept: " + QString::fromStdString(words::problemText(*problem)));
}

void DraftKeeper::discard() {
  m_timer.stop();
  QFile::remove(path());
}

} // namespace butte::app
