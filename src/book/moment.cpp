#include "moment.h"

#include <QDateTime>
#include <QTimeZone>

namespace butte::book {

Moment Moment::now() {
  return {QDateTime::currentSecsSinceEpoch()};
}

std::optional<Moment> Moment::fromIso(std::string_view text) {
  const auto string = QString::fromUtf8(text.data(), static_cast<qsizetype>(text.size())).trimmed();
  auto time = QDateTime::fromString(string, Qt::ISODate);
  if (!time.isValid()) return std::nullopt;
  // A text without an offset is UTC: the same file then means the same on every computer.
  if (time.timeSpec() == Qt::LocalTime) time.setTimeSpec(Qt::UTC);
  return Moment{time.toSecsSinceEpoch()};
}

std::string Moment::iso() const {
  return QDateTime::fromSecsSinceEpoch(seconds, Qt::UTC).toString(Qt::ISODate).toStdString();
}

} // namespace butte::book
