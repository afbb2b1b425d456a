#include "document/edit_log.h"

#include <algorithm>

namespace butte::app {

using exchange::Edit;
using exchange::Json;

book::Trouble MemoryLog::keep(const Edit& edit, bool gather) {
  const bool merges = gather && m_gathering && !m_undo.empty() && !edit.mergeKey.empty() &&
                      m_undo.back().mergeKey == edit.mergeKey &&
                      m_undo.back().changes.size() == edit.changes.size();
  if (merges) {
    for (std::size_t i = 0; i < edit.changes.size(); ++i)
      m_undo.back().changes[i].after = edit.changes[i].after;
    m_undo.back().deed = edit.deed;
  } else {
    m_gathering = !edit.mergeKey.empty();
    m_undo.push_back(edit);
  }
  m_redo.clear();
  return std::nullopt;
}

std::optional<core::Deed> MemoryLog::undoable() {
  return m_undo.empty() ? std::nullopt : std::optional(m_undo.back().deed);
}
std::optional<core::Deed> MemoryLog::redoable() {
  return m_redo.empty() ? std::nullopt : std::optional(m_redo.back().deed);
}

core::Result<std::optional<Json>> MemoryLog::stepOver(const Json& now, bool back) {
  auto& from = back ? m_undo : m_redo;
  if (from.empty()) return std::optional<Json>();
  const auto edit = from.back();
  const auto next = exchange::withChanges(now, back ? exchange::inverse(edit) : edit);
  if (!next) return next.problem();
  from.pop_back();
  (back ? m_redo : m_undo).push_back(edit);
  m_gathering = false;
  return std::optional(*next);
}

book::Trouble BookLog::keep(const Edit& edit, bool gather) {
  book::Step step{0, {}, {}, edit.deed, gather ? edit.mergeKey : std::string(), {}};
  for (const auto& change : edit.changes)
    step.changes.push_back({m_ref, "/body" + change.pointer, change.before, change.after});
  return gather ? m_book.applyGathering(std::move(step), book::Checked::ByCaller)
                : m_book.apply(std::move(step), book::Checked::ByCaller);
}

core::Result<std::optional<Json>> BookLog::stepOver(const Json&, bool back) {
  const auto step = back ? m_book.undo(of()) : m_book.redo(of());
  if (!step) return step.problem();
  if (!*step) return std::optional<Json>();
  const auto& changes = (*step)->changes;
  if (std::none_of(changes.begin(), changes.end(), [&](const auto& c) { return c.ref == m_ref; }))
    return std::optional<Json>();
  const auto record = m_book.record(m_ref);
  if (!record) return record.problem();
  if (!*record || (*record)->binnedAt) return std::optional<Json>();
  return std::optional((*record)->body);
}

} // namespace butte::app
