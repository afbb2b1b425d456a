#pragma once
#include "book/copies.h"
#include "book/record.h"
#include "target/target.h"

#include <QDateTime>
#include <QLocale>
#include <QString>
#include <QStringList>

namespace butte::app {

inline QString qtext(const std::string& text) {
  return QString::fromStdString(text);
}

/// What is wrong, with its place in front.
QString problemWords(const core::Problem& problem);

/// "2 Mar 2026 07:15", in the person's own time zone and language.
inline QString whenText(book::Moment at) {
  return QLocale().toString(QDateTime::fromSecsSinceEpoch(at.seconds), "d MMM yyyy HH:mm");
}
inline QString dayText(book::Moment at) {
  return QLocale().toString(QDateTime::fromSecsSinceEpoch(at.seconds).date(), "d MMM yyyy");
}

/// "water", "stock plan"; "stock plans": a kind in a sentence.
QString kindText(book::Kind kind, bool several = false);

/// What going back to a copy would change, a line each: "2 waters made since would go: Bore, Rain".
QStringList goingBackWords(const std::vector<book::GoingBack>& changes);

/// A shipped target by crop, stage and name: "lettuce · recirculating feed · Cornell lettuce"; nothing twice.
QString targetTitle(const core::CatalogueTarget& target);

} // namespace butte::app
