#include "document/formula_editor.h"

#include "deed_words.h"
#include "document/edit_log.h"
#include "document/water_names.h"
#include "edit.h"
#include "formula_json.h"
#include "words.h"

namespace butte::app {

using exchange::Edit;
using exchange::Json;

namespace {

bool sameShelf(const std::vector<core::ShelfProduct>& a, const std::vector<core::ShelfProduct>& b) {
  return std::equal(a.begin(), a.end(), b.begin(), b.end(),
                    [](const auto& x, const auto& y) { return x.id == y.id; });
}

} // namespace

/// A formula read and computed, before it is anybody's.
struct FormulaEditor::Worked {
  Json json;
  exchange::FormulaDocument document;
  core::Answer answer;
};

FormulaEditor::FormulaEditor(QObject* parent)
    : QObject(parent), m_json(std::make_unique<Json>()), m_log(std::make_unique<MemoryLog>()) {
  adoptWorked(exchange::emptyFormula());
}

FormulaEditor::~FormulaEditor() = default;

core::Result<FormulaEditor::Worked> FormulaEditor::workedOut(Json json) {
  auto read = exchange::readFormulaDocument(json);
  if (!read) return read.problem();
  auto document = std::move(read).value();
  nameUnnamedWaters(document.water);
  document.waterName = document.water.name;
  auto answer = core::compute(document.given);
  if (!answer) return answer.problem();
  return Worked{std::move(json), std::move(document), std::move(answer).value()};
}

void FormulaEditor::adopt(Worked worked) {
  // While few products are sought the older answer stays, as long as it is about the same shelf and tanks.
  const auto& given = worked.document.given;
  const bool few = given.atMostProducts.has_value();
  const bool sameWay = given.direct.has_value() == m_answer.direct.has_value() &&
                       (given.direct || worked.document.tanks.size() == m_answer.stock.tanks.size());
  const bool keeps = few && sameWay && sameShelf(given.request.shelf, m_document.given.request.shelf) &&
                     m_document.given.atMostProducts;
  *m_json = std::move(worked.json);
  m_document = std::move(worked.document);
  if (!keeps) m_answer = std::move(worked.answer);
  m_background.cancel();
  m_searching = false;
  if (few) searchFew();
}

std::optional<core::Problem> FormulaEditor::adoptWorked(const Json& json) {
  auto worked = workedOut(json);
  if (!worked) return worked.problem();
  adopt(std::move(worked).value());
  return std::nullopt;
}

void FormulaEditor::searchFew() {
  m_searching = true;
  m_background.start<std::optional<core::Answer>>(
      [given = m_document.given]() -> std::optional<core::Answer> {
        const auto narrowed = core::withFewProducts(given);
        if (!narrowed) return std::nullopt;
        auto answer = core::compute(*narrowed);
        return answer ? std::optional(std::move(answer).value()) : std::nullopt;
      },
      [this](std::optional<core::Answer> found) {
        m_searching = false;
        if (found) m_answer = std::move(*found);
        emit changed();
      });
}

void FormulaEditor::setOverlay(std::optional<Overlay> overlay) {
  m_overlay = std::move(overlay);
  emit overlayChanged();
}

void FormulaEditor::load(const Json& json) {
  bind(json, std::make_unique<MemoryLog>());
}

bool FormulaEditor::bind(const Json& json, std::unique_ptr<EditLog> log) {
  if (adoptWorked(json)) return false;
  m_log = std::move(log);
  m_log->keepToThis(m_undoHere);
  m_overlay.reset();
  emit loaded();
  emit changed();
  return true;
}

void FormulaEditor::refresh(const Json& json) {
  if (json != *m_json && !adoptWorked(json)) emit changed();
}

std::optional<core::Problem> FormulaEditor::apply(const Edit& wished) {
  const auto refuse = [this](const core::Problem& problem) {
    emit refused(QString::fromStdString(words::problemText(problem)));
    return problem;
  };
  Edit edit = wished;
  for (auto& change : edit.changes) {
    if (change.pointer == "/shelf") exchange::keepShippedFigures(change.after);
  }
  auto next = exchange::withChanges(*m_json, edit);
  if (!next) return refuse(next.problem());
  if (*next == *m_json) return std::nullopt;
  // First it must read and compute, then it is kept: what is in the book can always be opened.
  auto worked = workedOut(std::move(next).value());
  if (!worked) return refuse(worked.problem());
  m_applying = true;
  const auto trouble = m_log->keep(edit, !edit.mergeKey.empty());
  m_applying = false;
  if (trouble) return refuse(*trouble);
  adopt(std::move(worked).value());
  emit changed();
  return std::nullopt;
}

std::optional<core::Problem> FormulaEditor::set(const core::Deed& deed, const std::string& pointer,
                                                const Json& value, bool merge) {
  const Json::json_pointer place(pointer);
  const Json before = m_json->contains(place) ? (*m_json)[place] : Json();
  return apply({deed, {{pointer, before, value}}, merge ? pointer : std::string()});
}

void FormulaEditor::letGo() {
  m_log = std::make_unique<MemoryLog>();
}

void FormulaEditor::endMerging() {
  m_log->endGathering();
}

bool FormulaEditor::canUndo() const {
  return m_log->undoable().has_value();
}
bool FormulaEditor::canRedo() const {
  return m_log->redoable().has_value();
}

QString FormulaEditor::undoWords() const {
  const auto deed = m_log->undoable();
  return deed ? QString::fromStdString(words::deedText(*deed)) : QString();
}
QString FormulaEditor::redoWords() const {
  const auto deed = m_log->redoable();
  return deed ? QString::fromStdString(words::deedText(*deed)) : QString();
}

void FormulaEditor::keepUndoHere(bool here) {
  if (m_undoHere == here) return;
  m_undoHere = here;
  m_log->keepToThis(here);
}

bool FormulaEditor::undo() {
  return step(true);
}
bool FormulaEditor::redo() {
  return step(false);
}

bool FormulaEditor::step(bool back) {
  m_applying = true;
  const auto next = m_log->stepOver(*m_json, back);
  m_applying = false;
  auto problem = next ? std::optional<core::Problem>() : std::optional(next.problem());
  if (!problem && *next) problem = adoptWorked(**next);
  if (problem)
    emit refused(QString::fromStdString(words::problemText(*problem)));
  else
    emit changed();
  return !problem;
}

int FormulaEditor::indexOf(const std::string& id) const {
  for (std::size_t i = 0; i < m_document.products.size(); ++i) {
    if (m_document.products[i].id == id) return static_cast<int>(i);
  }
  return -1;
}

int FormulaEditor::shelfIndexOf(const std::string& id) const {
  const auto& shelf = m_document.given.request.shelf;
  const auto it = std::find_if(shelf.begin(), shelf.end(), [&](const auto& p) { return p.id == id; });
  return it == shelf.end() ? -1 : static_cast<int>(it - shelf.begin());
}

std::optional<core::Mass> FormulaEditor::gramsOf(const std::string& id) const {
  const auto at = static_cast<std::size_t>(shelfIndexOf(id));
  return at < m_answer.solution.grams.size() ? std::optional(m_answer.solution.grams[at]) : std::nullopt;
}

std::string FormulaEditor::nameOf(const std::string& id) const {
  const int index = indexOf(id);
  return index < 0 ? id : m_document.products[static_cast<std::size_t>(index)].name;
}

} // namespace butte::app
