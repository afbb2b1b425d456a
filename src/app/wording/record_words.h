#pragma once
#include "book/record.h"

#include <QDateTime>
#include <QLocale>
#include <QString>

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

/// "water", "stock plan": a kind in a sentence.
inline QString kindText(book::Kind kind) {
  return qtext(std::string(book::code(kind))).replace('_', ' ');
}

} // namespace butte::app
