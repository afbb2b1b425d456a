#include "table_words.h"

#include "language.h"

#include <array>
#include <fmt/args.h>

namespace butte::words {
namespace {

constexpr std::array<const char*, rowCodeCount> rowPatterns{
#define BUTTE_ROW_ENGLISH(name, english) english,
    BUTTE_ROW_SAYINGS(BUTTE_ROW_ENGLISH)
#undef BUTTE_ROW_ENGLISH
};

} // namespace

std::string rowText(const RowSaying& saying) {
  fmt::dynamic_format_arg_store<fmt::format_context> values;
  for (const auto& value : saying.values)
    values.push_back(value);
  return filled(rowPatterns[static_cast<std::size_t>(saying.code)], values);
}

std::string tableText(const std::string& tableName, char delimiter, bool decimalComma) {
  const auto parted =
      delimiter == '\t' ? text("cells parted by tab") : said("cells parted by '{}'", delimiter);
  return text(tableName) + ", " + parted + ", " +
         (decimalComma ? text("decimal comma") : text("decimal point"));
}

} // namespace butte::words
