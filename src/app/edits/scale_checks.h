#pragma once
#include "book/scale_check.h"

#include <optional>
#include <vector>

namespace butte::app {

class BookDesk;

/// Checks of the farm's scales with known weights, in the book.
class ScaleChecks {
public:
  explicit ScaleChecks(BookDesk& desk) : m_desk(desk) {}

  book::Trouble keep(const book::ScaleCheck& check);
  /// Of one scale, the newest first.
  std::vector<book::ScaleCheck> of(const std::string& scale) const;
  std::optional<book::ScaleCheck> lastOf(const std::string& scale) const;

private:
  BookDesk& m_desk;
};

} // namespace butte::app
