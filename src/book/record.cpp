#include "record.h"

#include <QUuid>

namespace butte::book {

Ref freshRef(Kind kind) {
  return {kind, QUuid::createUuid().toString(QUuid::WithoutBraces).toStdString()};
}

} // namespace butte::book
