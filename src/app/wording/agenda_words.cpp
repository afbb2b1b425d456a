#include "wording/agenda_words.h"

#include "document/local_day.h"
#include "services/units_shown.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QLocale>
#include <QRegularExpression>

namespace butte::app {

using book::Cause;

QString choreText(const book::AgendaItem& item) {
  const auto name = qtext(item.name);
  switch (item.cause) {
  case Cause::Mix:
    return tr("Mix %1").arg(name);
  case Cause::CalibrateEc:
    return tr("Calibrate the EC pen, %1").arg(name);
  case Cause::CalibratePh:
    return tr("Calibrate the pH pen, %1").arg(name);
  case Cause::CheckScale:
    return tr("Check the scale %1").arg(name);
  case Cause::AnalyseWater:
    return tr("Have %1 analysed").arg(name);
  case Cause::BestBefore:
    return tr("Use up %1").arg(name);
  case Cause::Order:
    return tr("Order %1").arg(name);
  case Cause::Own:
    break;
  }
  return name;
}

QString repeatText(const std::string& rule) {
  static const QRegularExpression usual("^FREQ=(DAILY|WEEKLY|MONTHLY|YEARLY)(?:;INTERVAL=(\\d+))?$");
  const auto match = usual.match(qtext(rule));
  if (!match.hasMatch()) return tr("repeated: %1").arg(qtext(rule));
  const int every = match.captured(2).isEmpty() ? 1 : match.captured(2).toInt();
  const auto freq = match.captured(1);
  if (freq == "DAILY") return every == 1 ? tr("every day") : tr("every %1 days").arg(every);
  if (freq == "WEEKLY") return every == 1 ? tr("every week") : tr("every %1 weeks").arg(every);
  if (freq == "MONTHLY") return every == 1 ? tr("every month") : tr("every %1 months").arg(every);
  return every == 1 ? tr("every year") : tr("every %1 years").arg(every);
}

QString causeText(const book::AgendaItem& item) {
  switch (item.cause) {
  case Cause::Mix:
    return tr("The feed of a day has used up the first of its tanks by then.");
  case Cause::CalibrateEc:
  case Cause::CalibratePh:
    return tr("A week after it was done (common practice). Buffers fresh, rinse between them, note the slope "
              "in the "
              "tank's log: a pH pen below 85 % is near its end.");
  case Cause::CheckScale:
    return tr("A month after it was done (common practice): a known weight on it, at the Bench.");
  case Cause::AnalyseWater:
    return tr("Half a year after the newest report (common practice); sooner after a drought or a new well.");
  case Cause::BestBefore:
    return tr("Its date is a month ahead: use it first, or check it.");
  case Cause::Order:
    return tr("By then it must be ordered to come before the shelf is empty.");
  case Cause::Own:
    break;
  }
  if (!item.chore.rule.empty()) return repeatText(item.chore.rule);
  if (item.chore.afterDays)
    return counted(*item.chore.afterDays, tr("%1 day after it was done"), tr("%1 days after it was done"));
  return tr("once");
}

QString dayWords(core::Day day) {
  return QLocale().toString(dateOf(day), "ddd d MMM");
}

QString todayText(const ShelfStory& story) {
  int today = 0, late = 0;
  for (const auto& due : story.agenda.due) {
    today += due.on == story.today;
    late += due.on < story.today;
  }
  if (today == 0 && late == 0) return {};
  const auto now = counted(today, tr("%1 to do today"), tr("%1 to do today"));
  if (late == 0) return now;
  const auto behind = tr("%1 late").arg(late);
  return today == 0 ? behind : tr("%1 · %2").arg(behind, now);
}

QStringList dueTexts(const ShelfStory& story, core::Day from, core::Day to) {
  QStringList out;
  for (const auto& due : story.agenda.due) {
    if (due.on < from || due.on > to) continue;
    auto words = choreText(story.agenda.items[due.chore]);
    if (due.missed > 0)
      words += counted(due.missed, tr(" (%1 time before missed too)"), tr(" (%1 times before missed too)"));
    out << words;
  }
  return out;
}

} // namespace butte::app
