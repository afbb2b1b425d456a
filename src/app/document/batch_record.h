#pragma once
#include "book/batch.h"

namespace butte::app {

class BookDesk;
class FormulaEditor;
class UnitsShown;

/// Where the day stands in a kept sheet, so that equal sheets are kept once; put in when it is shown.
inline constexpr const char* sheetDayMark = "@day@";

/// Keeps the batch that the sheet on the bench asks for: the formula becomes a version, the sheet is kept as
/// it stands. Gives the batch's name in the book.
core::Result<book::Ref> recordBatch(BookDesk& desk, const FormulaEditor& editor, const UnitsShown& units);

} // namespace butte::app
