#include "wording/before_mixing.h"

#include "document/formula_editor.h"
#include "services/units_shown.h"
#include "wording/falling_words.h"
#include "wording/tr.h"
#include "words.h"

#include <algorithm>
#include <optional>

namespace butte::app {
namespace {

/// Of what a tank is said to be, what spoils it or harms the hand.
bool spoils(core::StockWarning kind) {
  return kind != core::StockWarning::NotPlaced && kind != core::StockWarning::PartlyUnknown;
}

} // namespace

QString sentenceOf(const std::string& clause) {
  auto out = QString::fromStdString(clause);
  if (!out.isEmpty()) out[0] = out[0].toUpper();
  return out + ".";
}

namespace {

QStringList ofTanks(const FormulaEditor& editor, const std::optional<std::string>& tank) {
  const auto namer = [&](const std::string& id) { return editor.nameOf(id); };
  QStringList out;
  for (const auto& notice : editor.answer().stock.notices) {
    if (spoils(notice.kind) && (!tank || notice.tank == *tank))
      out << sentenceOf(words::stockNoticeText(notice, namer));
  }
  return out;
}

} // namespace

namespace {

QStringList unsureFigures(const core::Answer& answer) {
  QStringList out;
  const auto& remarks = answer.waters.water.remarks;
  if (std::find(remarks.begin(), remarks.end(), core::WaterRemark::Estimated) != remarks.end())
    out << sentenceOf(words::waterRemarkText(core::WaterRemark::Estimated));
  constexpr double leastToSay = 0.3; // meq/L: 0.02 mS/cm
  if (const double unstated = answer.feed.unstatedMeqPerLitre; unstated >= leastToSay)
    out << tr("A label leaves %1 meq/L of ions unstated: EC may read up to %2 higher than planned, and "
              "the pH is as unsure.")
               .arg(localNumber(unstated, 1),
                    QString::fromStdString(words::measures().text(answer.feed.unstatedConductivity())));
  return out;
}

} // namespace

BeforeMixing beforeMixing(const FormulaEditor& editor) {
  BeforeMixing out;
  for (const auto& level : editor.answer().harmful)
    out.harmful << sentenceOf(words::harmfulText(level));
  out.inFeed = fallingSentences(tr("The feed"), editor.answer().feed);
  out.inTanks = ofTanks(editor, std::nullopt);
  out.unsure = unsureFigures(editor.answer());
  return out;
}

QStringList fallingInTank(const FormulaEditor& editor, const std::string& tank) {
  return ofTanks(editor, tank);
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
