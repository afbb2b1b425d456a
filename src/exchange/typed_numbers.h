#pragma once
#include "amount.h"
#include "json_reader.h"

#include <optional>
#include <string>
#include <string_view>

/// Numbers as a person typed them: texts with a decimal point, alone or with a unit.
namespace butte::exchange {

/// Digits as typed, inside a range given in words.
std::optional<double> digits(ObjectReader& reader, std::string_view key, double low, double high,
                             const std::string& right);

/// {"amount", "unit"} turned into `base`; refuses what is below `low` or beyond `high` (in base).
std::optional<double> amount(ObjectReader& parent, std::string_view key, std::string_view base, double low,
                             double high, Amount* asTyped = nullptr);

/// As it stands in a file: {"amount": digits, "unit": unit}, plain digits as a text, null where nothing was
/// typed.
Json figureJson(const Amount& figure);
/// The same back; anything else is nothing typed.
Amount figureFrom(const Json& json);
/// {"amount": digits, "unit": unit}
Json amountJson(const std::string& digits, const std::string& unit);

/// "rows[2]"
std::string item(const std::string& list, std::size_t index);

} // namespace butte::exchange
