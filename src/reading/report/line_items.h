#pragma once
#include "report/analyte.h"
#include "text/atoms.h"
#include "text/figure_text.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace butte::reading {

/// What a column holds.
enum class Role { Name, Symbol, Result, Unit, Limit, Flag, Method, Date, Number, Source, Unknown };

/// A figure as it stands: "< 0.05", "12.5 J", "35.2 ± 0.4".
struct Figure {
  double value = 0;
  bool below = false;              ///< less than it
  bool above = false;              ///< more than it: no figure to reckon with
  std::optional<double> otherwise; ///< the same digits, read the other way
};

/// A cell of a line, or a part of one where blanks alone part it.
struct Item {
  enum class Kind { Empty, Name, Figure, NotMeasured, Unit, Range, Date, Formula, Text };
  Kind kind = Kind::Text;
  std::size_t from = 0, to = 0; ///< bytes of the line
  int left = 0, right = 0;      ///< columns as a typewriter counts
  std::size_t cell = 0;         ///< which cell of the line, from 0
  std::string text;             ///< as it stands, trimmed, quotes off
  std::optional<Analyte> analyte;
  Figure figure;
  std::string unit;                      ///< of a Unit; of a Name or a Figure that has one with it
  std::vector<std::string> form;         ///< "as N" behind the unit
  std::optional<Role> role;              ///< as a heading; a Text, Name or Unit may be one too
  std::size_t nameAtom = 0, nameEnd = 0; ///< the atoms of a name, to join it with its symbol's column
  std::string flag;                      ///< letters behind a figure: "J", "U"
};

/// How the cells of a line are parted.
enum class Parting { Blanks, WideBlanks, Tab, Semicolon, Bar, Comma };

struct Line {
  int number = 0; ///< from 1
  std::string_view text;
  std::vector<Atom> atoms;
  Parting parting = Parting::Blanks;
  std::vector<Item> items;
};

/// The line's atoms and items. `commaColumns`: that many cells are expected of a line parted by commas (0:
/// any number). `commas`: whether commas part cells in this paper.
/// `atoms`: those of the text where they are known already (its commas may be decimal), none otherwise.
Line lineOf(std::string_view text, int number, DecimalMark mark, bool commas, std::size_t commaColumns = 0,
            std::vector<Atom> atoms = {});

/// Whether a cell is a spreadsheet's formula or the mark of a failed one: "=SUM(A1:A9)", "#REF!", "@A1".
bool isSpreadsheetFormula(std::string_view cell);

} // namespace butte::reading
