#pragma once
#include "book/batch.h"

#include <QString>

namespace butte::app {

class BookDesk;
class FormulaEditor;

/// Where the day stands in a kept sheet, so that equal sheets are kept once; put in when it is shown.
inline constexpr const char* sheetDayMark = "@day@";

/// Keeps the batch that the sheet on the bench asks for: the formula becomes a version, the sheet is kept as
/// it stands (with sheetDayMark for the day). Gives the batch's name in the book.
core::Result<book::Ref> recordBatch(BookDesk& desk, const FormulaEditor& editor, const QString& sheetHtml);

} // namespace butte::app
