#pragma once
#include <QCoreApplication>

namespace butte::app {

/// The translation call outside of widgets (inside of them it is QObject::tr): every text that a person reads
/// passes one of the two.
inline QString tr(const char* english, const char* comment = nullptr, int count = -1) {
  return QCoreApplication::translate("butte", english, comment, count);
}

/// One of two texts by a count, which stands at %1 in both.
template <class Count> QString counted(Count count, const QString& one, const QString& more) {
  return (count == 1 ? one : more).arg(count);
}

} // namespace butte::app
