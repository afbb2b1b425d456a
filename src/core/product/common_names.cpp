#include "product/common_names.h"

#include "base/csv.h"
#include "base/embedded.h"

namespace butte::core {
namespace {

const CsvTable& names() {
  static const CsvTable table(embedded::common_names());
  return table;
}

} // namespace

std::vector<std::string> commonNamesOf(std::string_view productId) {
  std::vector<std::string> out;
  for (std::size_t i = 0; i < names().rowCount(); ++i) {
    if (names().cell(i, "product") == productId) out.push_back(names().cell(i, "name"));
  }
  return out;
}

} // namespace butte::core
