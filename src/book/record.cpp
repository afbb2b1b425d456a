#include "record.h"

#include <QUuid>

namespace butte::book {

std::string_view code(Kind kind) {
  switch (kind) {
  case Kind::Water:
    return "water";
  case Kind::Product:
    return "product";
  case Kind::Target:
    return "target";
  case Kind::Formula:
    return "formula";
  case Kind::StockPlan:
    return "stock_plan";
  case Kind::Batch:
    return "batch";
  case Kind::Reading:
    return "reading";
  case Kind::ReadingImport:
    return "reading_import";
  }
  return "";
}

std::optional<Kind> kindFromCode(std::string_view text) {
  for (const auto kind : allKinds) {
    if (code(kind) == text) return kind;
  }
  return std::nullopt;
}

Ref freshRef(Kind kind) {
  return {kind, QUuid::createUuid().toString(QUuid::WithoutBraces).toStdString()};
}

} // namespace butte::book
