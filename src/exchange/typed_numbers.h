#pragma once
#include "amount.h"
#include "json_reader.h"

#include <string>
#include <string_view>

/// Numbers as a person typed them, as they stand in a file. things/figure.h reads them.
namespace butte::exchange {

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
