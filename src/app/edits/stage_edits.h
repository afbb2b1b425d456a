#pragma once
#include "edits/edits.h"
#include "formula/formula_answer.h"
#include "formula_document.h"

#include <optional>

namespace butte::app {

/// One stage of a crop, worked out.
struct StageWorked {
  QString name;
  exchange::FormulaDocument document;
  core::Answer answer;
};

/// The stages of one crop (normal, boosted ...) that share water, shelf and tanks; each edit one step of
/// undo.
class StageEdits : public Edits {
public:
  using Edits::Edits;

  /// None where the formula has no stages.
  std::vector<std::string> names() const;
  std::size_t inHand() const;
  void takeInHand(std::size_t stage);
  /// A copy of the one in hand, which it then is; `first` names what there was without stages. False for a
  /// name that is there, or one too many.
  bool add(const std::string& first, const std::string& name);
  bool rename(std::size_t stage, const std::string& name);
  /// One that is not in hand.
  void remove(std::size_t stage);
  /// All of them in order, as they would be in hand; those that can't be worked out are left out.
  std::vector<StageWorked> workedOut() const;

private:
  void apply(const Deed& deed, const exchange::Json& next);
};

} // namespace butte::app
