#pragma once
#include <string>
#include <string_view>
#include <vector>

namespace butte::core {

/// Without blanks at both ends.
std::string_view trimmed(std::string_view text);

/// The cells of one line of a table: parted by tab, semicolon or bar where the line has one, else by commas
/// and by wide blanks. Quotes hold a cell together.
///
/// A comma after a bare figure and before a digit is a decimal comma ("14,2", but not "NO3,12,mg/l"), unless
/// `columns` (of a heading above; 0: none) says that all of them part cells ("78,14,23" under "Ca,Mg,Na").
std::vector<std::string> reportCells(std::string_view line, std::size_t columns = 0);

/// Whether a cell is a spreadsheet's formula or the mark of a failed one: "=SUM(A1:A9)", "#REF!", "@A1".
bool isSpreadsheetFormula(std::string_view cell);

} // namespace butte::core
