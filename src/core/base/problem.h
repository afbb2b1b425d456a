#pragma once
#include <string>
#include <utility>
#include <vector>

namespace butte::core {

/// What went wrong. The words for each code live in src/words; the core only reports values.
enum class ProblemCode {
  FormulaEmpty,
  FormulaSyntax,          ///< values: formula, position (1-based), expected, found
  UnknownElement,         ///< values: formula, position (1-based), symbol
  FormulaTooLarge,        ///< values: formula, limit
  NotANumber,             ///< values: text
  Unclear,                ///< values: text, what it could mean
  OutOfRange,             ///< values: value, what is right (a phrase)
  OutsideLimits,          ///< values: value, least, most, unit; an empty limit is none
  NotAbove,               ///< values: value, what it must be above, unit
  NotOneOf,               ///< values: value, known ones as one text
  MissingKey,             ///< values: what is needed (a phrase)
  UnknownKey,             ///< values: known keys
  DuplicateKey,           ///< values: the other key
  WrongType,              ///< values: expected, found (phrases)
  UnknownUnit,            ///< values: unit
  IncompatibleUnits,      ///< values: from, to
  NeedsSubstance,         ///< values: from, to
  UnknownSubstance,       ///< values: substance
  NoCharge,               ///< values: substance
  CarbonOrCharge,         ///< values: from, to: the same carbon is not the same charge
  FormulaAndLabel,        ///< a product has both
  NoComposition,          ///< a product has neither formula nor label
  PurityBesideLabel,      ///< a label already says the purity
  LabelOverHundred,       ///< values: sum in percent
  PhosphiteNotPhosphate,  ///< values: formula
  LabelDoubled,           ///< values: key, other key: two keys for one element on a label
  UnknownProduct,         ///< values: product id
  DuplicateProduct,       ///< values: product id
  UnknownTank,            ///< values: tank, known tanks
  ToleranceWithoutTarget, ///< values: element
  NeedsPrice,             ///< values: product id
  BadJson,                ///< values: what the parser said
  BadFile,                ///< values: what is wrong with it (a phrase)
  CantBeRead,             ///< values: what the system said
  CantBeWritten,          ///< values: what the system said
  NewerFormat,            ///< values: found version, newest known version
  NoEquilibrium,          ///< the solution chemistry found no end
  CannotReach,            ///< values: target pH
  TooFewReadings,         ///< values: how many are needed
  NotDeterminable,        ///< the readings leave what is sought open
  NotABook,               ///< the file is no farm book
  BookMissing,            ///< there is no such file
  BookOlder,       ///< values: found version, this program's: only opening for writing brings it forward
  BookDamaged,     ///< values: what was found
  BookNotWritable, ///< values: what the system said
  BookFull,        ///< no room on the disk
  BookBusy,        ///< another program holds the file for a moment
  BookReadOnly,    ///< values: who holds it
  BookConflict,    ///< what stands in the file is not what the edit began from
};

/// A fault in what was given: a code, the place (a key path such as "products[2].formula") and the values
/// that the words need. Values are already text, in full precision and with a decimal point. A phrase among
/// them is English and whole: the words look it up as it stands.
struct Problem {
  ProblemCode code{};
  std::string where;
  std::vector<std::string> values;
};

inline Problem problemAt(ProblemCode code, std::string where, std::vector<std::string> values = {}) {
  return Problem{code, std::move(where), std::move(values)};
}

} // namespace butte::core
