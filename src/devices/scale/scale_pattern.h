#pragma once
#include "base/result.h"
#include "scale/scale_line.h"

#include <string>
#include <string_view>
#include <vector>

namespace butte::devices {

/// How a scale of one's own writes its lines (docs/formats/scale_patterns.md): text that stands in every
/// line, and in braces what differs:
///   {weight}        sign and value; the unit stands elsewhere, as {unit}
///   {weight:kg}     the same where the line has no unit: the value is in kg (mg, g, kg, oz, lb)
///   {unit}          one of the units
///   {stable:A|B}    A when it is stable, B when it moves; one of them may be empty
///   {any}           whatever stands there up to the next blank or text of the pattern
/// A blank stands for any number of blanks, also none.
class ScalePattern {
public:
  /// NotOneOf for an unknown brace or unit, MissingKey without one weight and its unit, BadFile for a brace
  /// that is not closed, and for a pattern that is too long; `where` is "pattern".
  static core::Result<ScalePattern> parse(std::string_view text);

  /// A line that does not fit the pattern wholly is Nothing.
  ScaleReading read(std::string_view line) const;

  enum class Part { Text, Blank, Weight, Unit, Stable, Any };
  struct Piece {
    Part part{};
    std::string text;   ///< of Text; the unit of Weight; what stands when stable
    std::string moving; ///< what stands when it moves
  };

private:
  static core::Result<Piece> brace(std::string_view inside);
  std::vector<Piece> m_pieces;
};

} // namespace butte::devices
