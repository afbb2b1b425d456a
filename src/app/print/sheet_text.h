#pragma once
#include <QDate>
#include <QString>
#include <optional>

namespace butte::app {

class FormulaEditor;
class UnitsShown;

/// The bench sheet as HTML: what to weigh, in which order, tank by tank, how to dissolve, the dose, the
/// reading to expect, the cautions for these very products. Black on white, with boxes to tick and lines to
/// write on.
QString benchSheetHtml(const FormulaEditor& editor, const UnitsShown& units, const QString& date);

/// A day as it stands on the sheet.
QString dateOnSheet(const QDate& day, std::optional<int> version = {});

} // namespace butte::app
