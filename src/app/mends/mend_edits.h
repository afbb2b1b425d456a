#pragma once
#include "edits/edits.h"
#include "solve/mends.h"

namespace butte::app {

/// A mend made part of the formula, as one step of undo.
class MendEdits : public Edits {
public:
  using Edits::Edits;

  /// `products`: to put on the shelf, with their names.
  void take(const core::Mend& mend, const std::vector<std::pair<std::string, QString>>& products);

private:
  void takeProducts(const std::vector<std::pair<std::string, QString>>& products);
  void takeWater(const core::Mend& mend);
};

} // namespace butte::app
