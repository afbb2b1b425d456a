#pragma once
#include <optional>
#include <utility>

namespace butte::core {

/// The last result of a pure function, kept for as long as it is asked the same: for what most keystrokes
/// leave as it was. Never changes an answer. One for each thread: `thread_local static`.
template <class Key, class Value> class LastResult {
public:
  template <class Function> const Value& of(const Key& key, Function workOut) {
    if (!m_kept || !(m_kept->first == key)) m_kept.emplace(key, workOut(key));
    return m_kept->second;
  }

private:
  std::optional<std::pair<Key, Value>> m_kept;
};

} // namespace butte::core
