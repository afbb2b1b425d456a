#include "document/formula_editor.h"

#include "words.h"

namespace butte::app {

using exchange::Edit;
using exchange::Json;

namespace {
constexpr std::size_t mostSteps = 2000;
}

FormulaEditor::FormulaEditor(QObject* parent) : QObject(parent) {
  adopt(exchange::emptyFormula());
}

bool FormulaEditor::adopt(const Json& json) {
  auto document = exchange::readFormulaDocument(json);
  if (!document) return false;
  auto answer = core::compute(document->given);
  if (!answer) return false;
  m_json = json;
  m_document = std::move(document).value();
  m_answer = std::move(answer).value();
  return true;
}

void FormulaEditor::load(const Json& json, bool unsaved) {
  if (!adopt(json)) return;
  m_undo.clear();
  m_redo.clear();
  m_unsaved = unsaved;
  m_merging = false;
  emit changed();
}

std::optional<core::Problem> FormulaEditor::apply(Edit edit) {
  const auto next = exchange::applied(m_json, edit);
  if (!next) {
    emit refused(QString::fromStdString(words::problemText(next.problem())));
    return next.problem();
  }
  if (*next == m_json) return std::nullopt;
  adopt(*next);
  const bool merges = m_merging && !m_undo.empty() && !edit.mergeKey.empty() &&
                      m_undo.back().mergeKey == edit.mergeKey &&
                      m_undo.back().changes.size() == edit.changes.size();
  if (merges) {
    for (std::size_t i = 0; i < edit.changes.size(); ++i)
      m_undo.back().changes[i].after = edit.changes[i].after;
    m_undo.back().words = edit.words;
  } else {
    m_merging = !edit.mergeKey.empty();
    m_undo.push_back(std::move(edit));
    if (m_undo.size() > mostSteps) m_undo.erase(m_undo.begin());
  }
  m_redo.clear();
  m_unsaved = true;
  emit changed();
  return std::nullopt;
}

std::optional<core::Problem> FormulaEditor::set(const QString& words, const std::string& pointer,
                                                const Json& value, bool mergeWithLast) {
  const Json::json_pointer place(pointer);
  const Json before = m_json.contains(place) ? m_json[place] : Json();
  return apply({words.toStdString(), {{pointer, before, value}}, mergeWithLast ? pointer : std::string()});
}

QString FormulaEditor::undoWords() const {
  return canUndo() ? QString::fromStdString(m_undo.back().words) : QString();
}
QString FormulaEditor::redoWords() const {
  return canRedo() ? QString::fromStdString(m_redo.back().words) : QString();
}

void FormulaEditor::undo() {
  step(m_undo, m_redo, true);
}
void FormulaEditor::redo() {
  step(m_redo, m_undo, false);
}

void FormulaEditor::step(std::vector<Edit>& from, std::vector<Edit>& to, bool back) {
  if (from.empty()) return;
  const auto edit = from.back();
  const auto next = exchange::applied(m_json, back ? exchange::inverse(edit) : edit);
  if (!next) return;
  adopt(*next);
  from.pop_back();
  to.push_back(edit);
  m_unsaved = true;
  m_merging = false;
  emit changed();
}

void FormulaEditor::markSaved() {
  m_unsaved = false;
  emit changed();
}

int FormulaEditor::indexOf(const std::string& id) const {
  for (std::size_t i = 0; i < m_document.products.size(); ++i) {
    if (m_document.products[i].id == id) return static_cast<int>(i);
  }
  return -1;
}

std::optional<core::Mass> FormulaEditor::gramsOf(const std::string& id) const {
  const auto& shelf = m_document.given.request.shelf;
  for (std::size_t j = 0; j < shelf.size(); ++j) {
    if (shelf[j].id == id && j < m_answer.solution.grams.size()) return m_answer.solution.grams[j];
  }
  return std::nullopt;
}

std::string FormulaEditor::nameOf(const std::string& id) const {
  const int index = indexOf(id);
  return index < 0 ? id : m_document.products[static_cast<std::size_t>(index)].name;
}

} // namespace butte::app
