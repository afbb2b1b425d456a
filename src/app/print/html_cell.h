#pragma once
#include <QString>

namespace butte::app {

enum class CellSide { Left, Right };

/// A cell of a table of marked text; what is in it is text alone.
inline QString htmlCell(const QString& text, CellSide side = CellSide::Left) {
  return QString("<td align='%1' style='padding-right:10px'>%2</td>")
      .arg(side == CellSide::Right ? "right" : "left", text.toHtmlEscaped());
}

} // namespace butte::app
