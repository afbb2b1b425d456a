#pragma once
#include <optional>
#include <string_view>
#include <vector>

namespace butte::book {

/// What a book can hold. A new kind is a line here, a line in kinds.cpp and a file beside them.
enum class Kind {
  Water,
  Product,
  Target,
  Formula,
  StockPlan,
  Vessel,
  Batch,
  Reading,
  ReadingImport,
  PaperLayout,
  BenchRun,
  ScaleCheck,
  TankLine,
  Stream,
  Lot,
  ShelfLine,
  Chore,
  ChoreLine
};

/// The codes that stand in the file: "water", "product", "stock_plan" ...
std::string_view code(Kind kind);
std::optional<Kind> kindFromCode(std::string_view code);
const std::vector<Kind>& allKinds();

} // namespace butte::book
