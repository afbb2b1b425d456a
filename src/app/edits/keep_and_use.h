#pragma once
#include "book/record.h"

#include <QString>

namespace butte::app {

class BookDesk;
class FormulaEditor;

/// What the button of a section says that puts the formula's own part into the book; empty where there is
/// none.
QString keepWords(book::Kind kind);
/// Puts the formula's water, target, own products or stock plan into the book. What happened, in words.
QString keepFromFormula(BookDesk& desk, FormulaEditor& editor, book::Kind kind);
/// Puts one own product of the formula's shelf into the book, where the next formula finds it. What happened,
/// in words; nothing where no book is open to write in.
QString keepOwnProduct(BookDesk& desk, const FormulaEditor& editor, const std::string& id);
/// Puts the formula's target into the book as a stage of its crop, from a week on. What happened, in words.
QString keepStage(BookDesk& desk, FormulaEditor& editor, const QString& stage, const QString& fromWeek);
/// Takes a thing of the book into the formula in hand. What happened, in words.
QString useInFormula(BookDesk& desk, FormulaEditor& editor, const book::Ref& ref);

} // namespace butte::app
