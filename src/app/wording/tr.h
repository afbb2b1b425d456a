#pragma once
#include <QCoreApplication>

namespace butte::app {

/// The translation call outside of widgets (inside of them it is QObject::tr): every text that a person reads
/// passes one of the two.
inline QString tr(const char* english, const char* comment = nullptr, int count = -1) {
  return QCoreApplication::translate("butte", english, comment, count);
}

} // namespace butte::app
