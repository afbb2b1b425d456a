#include "wording/record_words.h"

#include "book/kinds/kind_info.h"
#include "language.h"
#include "wording/tr.h"
#include "words.h"

#include <algorithm>

namespace butte::app {

QString problemWords(const core::Problem& problem) {
  return qtext(words::problemLine(problem));
}

QString kindText(book::Kind kind, bool several) {
  const auto& info = book::infoOf(kind);
  return qtext(words::text(several ? info.many : info.one));
}

namespace {

/// "Bore, Rain, Spring and 4 more"
QString someOf(const std::vector<std::string>& names) {
  constexpr std::size_t most = 3;
  QStringList shown;
  for (std::size_t i = 0; i < std::min(most, names.size()); ++i)
    shown << qtext(names[i]);
  return names.size() > most ? tr("%1 and %2 more").arg(shown.join(", ")).arg(names.size() - most)
                             : shown.join(", ");
}

} // namespace

QStringList goingBackWords(const std::vector<book::GoingBack>& changes) {
  QStringList out;
  for (const auto& line : changes) {
    const auto say = [&](const QString& sentence, const std::vector<std::string>& names) {
      if (!names.empty())
        out << sentence.arg(names.size()).arg(kindText(line.kind, names.size() != 1), someOf(names));
    };
    say(tr("%1 %2 made since would go: %3"), line.gone);
    say(tr("%1 %2 would stand as then: %3"), line.otherwise);
    say(tr("%1 %2 would come back: %3"), line.back);
    if (line.countNow != line.countThen)
      out << tr("%1: %2 now, %3 then").arg(kindText(line.kind, true)).arg(line.countNow).arg(line.countThen);
  }
  return out;
}

QString targetTitle(const core::CatalogueTarget& target) {
  QStringList parts{qtext(target.crop)};
  if (target.stage != target.crop && target.stage != "general") parts << qtext(target.stage);
  parts << qtext(target.name);
  return parts.join(" · ");
}

} // namespace butte::app
