#pragma once
#include "base/problem.h"

#include <cassert>
#include <utility>
#include <variant>

namespace butte::core {

/// Either a value or the Problem that prevented it. (std::expected is C++23.)
/// Reading the value of a failed result, or the problem of a good one, is a programming error.
template <class T> class [[nodiscard]] Result {
public:
  Result(T value) : m_state(std::in_place_index<0>, std::move(value)) {}
  Result(Problem problem) : m_state(std::in_place_index<1>, std::move(problem)) {}

  explicit operator bool() const { return m_state.index() == 0; }
  const T& value() const& {
    assert(m_state.index() == 0);
    return std::get<0>(m_state);
  }
  T&& value() && {
    assert(m_state.index() == 0);
    return std::get<0>(std::move(m_state));
  }
  const T& operator*() const& { return value(); }
  T&& operator*() && { return std::move(*this).value(); }
  const T* operator->() const { return &value(); }
  const Problem& problem() const {
    assert(m_state.index() == 1);
    return std::get<1>(m_state);
  }

private:
  std::variant<T, Problem> m_state;
};

} // namespace butte::core
