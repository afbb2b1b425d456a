#pragma once
#include "product/product.h"

#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace butte::reading {

/// What a label leaves open or had to be interpreted by.
enum class LabelDoubt {
  SumsDoNotFit,     ///< the forms of nitrogen are more than its total; values: total, sum in percent
  TwoFigures,       ///< two lines state one element differently; values: key, the one taken, the other
  NeedsDensity,     ///< percent by volume without a density: nothing can be taken by weight
  PartWithoutTotal, ///< several chelates of one metal and no total: added up; values: key
  OverHundred,      ///< values: sum in percent
};
struct LabelDoubtFound {
  LabelDoubt doubt{};
  std::vector<std::string> values;
};

/// A line of the label and what it was read as.
struct LabelLine {
  int line = 0; ///< from 1
  std::string text;
  std::string key;     ///< "P2O5", "N_NO3" ...; empty where it says no content
  double percent = 0;  ///< by weight
  bool part = false;   ///< of what another line says already
  std::string chelate; ///< "EDTA"
};

/// What was understood of a label.
struct LabelText {
  std::vector<core::LabelRow> rows; ///< as the label states them, oxides too; percent by weight
  std::optional<double> densityKgPerL;
  std::map<std::string, std::string> chelates; ///< metal to what holds it
  std::vector<LabelLine> read;
  std::vector<std::string> unplaced; ///< lines with figures of which nothing was taken
  std::vector<LabelDoubtFound> doubts;
};

/// Reads a fertilizer's label as it stands on the bag, pasted or typed: guaranteed analysis, declarations
/// with the figure in front, tables, shorthand ("4-18-38 + 0.5 Mg"). "Water soluble" and "chelated" lines are
/// parts of the line that states the whole, "derived from" and "not more than" are no contents. Names are
/// those of data/reading_words.csv.
LabelText readLabelText(std::string_view text);

} // namespace butte::reading
