#pragma once
#include <QString>
#include <QStringList>

namespace butte::app {

class FormulaEditor;

/// What a hand must know before it weighs, in the words of the screen: on the sheet, the labels and the
/// Bench's card alike.
struct BeforeMixing {
  QStringList harmful; ///< elements that stand where they harm plants
  QStringList falling; ///< what falls out or meets what it must not, in the feed and in tanks
  bool isEmpty() const { return harmful.isEmpty() && falling.isEmpty(); }
};
BeforeMixing beforeMixing(const FormulaEditor& editor);
/// The part of it that is of this tank alone.
QStringList fallingInTank(const FormulaEditor& editor, const std::string& tank);

/// Why nothing may leave for paper or the book just now; empty where it may. The weights on the screen belong
/// to an older formula while few products are sought, and an answer that the independent check denies is no
/// answer.
QString keptFromPaper(const FormulaEditor& editor);

} // namespace butte::app
