#pragma once
#include <QString>
#include <QStringList>

namespace butte::app {

class FormulaEditor;

/// What a hand must know before it weighs, in the words of the screen: on the sheet, the labels and the
/// Bench's card alike.
struct BeforeMixing {
  QStringList harmful; ///< elements that stand where they harm plants
  QStringList inFeed;  ///< what falls out in the feed
  QStringList inTanks; ///< what falls out in a tank, or meets there what it must not
  QStringList unsure;  ///< figures of the sheet that rest on a guess or on a label that leaves ions out
  QStringList falling() const { return inFeed + inTanks; }
  bool isEmpty() const { return harmful.isEmpty() && inFeed.isEmpty() && inTanks.isEmpty(); }
};
/// A clause of the words as a sentence of its own.
QString sentenceOf(const std::string& clause);

BeforeMixing beforeMixing(const FormulaEditor& editor);
/// The part of it that is of this tank alone.
QStringList fallingInTank(const FormulaEditor& editor, const std::string& tank);

/// Why nothing may leave for paper or the book just now; empty where it may. The weights on the screen belong
/// to an older formula while few products are sought, and an answer that the independent check denies is no
/// answer.
QString keptFromPaper(const FormulaEditor& editor);

} // namespace butte::app
