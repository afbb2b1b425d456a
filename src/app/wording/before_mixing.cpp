#include "wording/before_mixing.h"

#include "document/formula_editor.h"
#include "wording/falling_words.h"
#include "wording/tr.h"
#include "words.h"

namespace butte::app {
namespace {

/// Of what a tank is said to be, what spoils it or harms the hand.
bool spoils(core::StockWarning kind) {
  return kind != core::StockWarning::NotPlaced && kind != core::StockWarning::PartlyUnknown;
}

QString sentence(const FormulaEditor& editor, const core::StockNotice& notice) {
  const auto namer = [&](const std::string& id) { return editor.nameOf(id); };
  auto out = QString::fromStdString(words::stockNoticeText(notice, namer));
  if (!out.isEmpty()) out[0] = out[0].toUpper();
  return out + ".";
}

} // namespace

BeforeMixing beforeMixing(const FormulaEditor& editor) {
  const auto& answer = editor.answer();
  BeforeMixing out;
  for (const auto& level : answer.harmful) {
    auto text = QString::fromStdString(words::harmfulText(level));
    text[0] = text[0].toUpper();
    out.harmful << text + ".";
  }
  out.falling = fallingSentences(tr("The feed"), answer.feed);
  for (const auto& notice : answer.stock.notices) {
    if (spoils(notice.kind)) out.falling << sentence(editor, notice);
  }
  return out;
}

QStringList fallingInTank(const FormulaEditor& editor, const std::string& tank) {
  QStringList out;
  for (const auto& notice : editor.answer().stock.notices) {
    if (notice.tank == tank && spoils(notice.kind)) out << sentence(editor, notice);
  }
  return out;
}

QString keptFromPaper(const FormulaEditor& editor) {
  if (editor.isSearching())
    return tr("The best few products are still being sought: the weights on the screen belong to the formula "
              "before. Wait "
              "a moment and try again.");
  if (!editor.answer().checked)
    return tr("The independent check does not agree with these weights: nothing is printed or kept by them. "
              "Change the "
              "formula a little and look again.");
  return {};
}

} // namespace butte::app
