#pragma once
#include <optional>
#include <string>
#include <vector>

/// The columns of tables: one place for both directions. Names in a header are compared in lower case.
namespace butte::book {

/// "Ca" and "mg/L" to "ca (mg/l)".
std::string columnOf(const std::string& key, const std::string& unit);
/// Keys of a label's rows: "N_NO3", "P2O5" ...
const std::vector<std::string>& labelKeys();
/// Keys of a water report's rows: "Ca", "HCO3" ...
const std::vector<std::string>& waterKeys();
/// The unit in which the book holds a quantity ("mS/cm", "" for pH, "L", "C"); nothing for another word.
std::optional<std::string> unitOf(const std::string& quantity);

} // namespace butte::book
