#include "print/week_sheet.h"

#include "document/local_day.h"
#include "wording/agenda_words.h"
#include "wording/tr.h"

#include <QLocale>

namespace butte::app {

using std::chrono::days;

namespace {

QString boxes(const QStringList& texts) {
  QString out;
  for (const auto& text : texts)
    out += "<br>☐ " + text.toHtmlEscaped();
  return out.mid(4);
}

} // namespace

QString weekSheet(const ShelfStory& story, const QString& farm) {
  const auto monday = mondayOf(story.today);
  auto out = "<h2>" + tr("To do, %1").arg(farm).toHtmlEscaped() + "</h2>";
  const auto late = dueTexts(story, monday - days(core::mostDaysLate), story.today - days(1));
  if (!late.isEmpty()) out += "<p><b>" + tr("Late") + "</b><br>" + boxes(late) + "</p>";
  constexpr int week = 7;
  for (int first : {0, week}) {
    out += "<h3>" + (first == 0 ? tr("This week") : tr("Next week")) +
           "</h3><table width='100%' border='1' cellspacing='0' cellpadding='4' style='border-color:#888'>";
    for (int day = first; day < first + week; ++day) {
      const auto on = monday + days(day);
      const auto texts = on < story.today ? QStringList() : dueTexts(story, on, on);
      out += QString("<tr><td width='18%'><b>%1</b></td><td>%2</td></tr>").arg(dayWords(on), boxes(texts));
    }
    out += "</table>";
  }
  return out + "<p>" +
         tr("Gloves, goggles and sleeves with acids and powders; acid into water, never water into acid.")
             .toHtmlEscaped() +
         "</p>";
}

} // namespace butte::app
