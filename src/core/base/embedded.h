#pragma once
#include <string_view>

/// The data files of data/, compiled in. Each is CSV (RFC 4180) with its units in the header line.
namespace butte::core::embedded {
std::string_view common_names();
std::string_view crop_ranges();
std::string_view crop_uptake();
std::string_view crystals();
std::string_view equilibria();
std::string_view heats_of_solution();
std::string_view ions();
std::string_view pitzer();
std::string_view products();
std::string_view misread_words();
std::string_view reading_particles();
std::string_view reading_words();
std::string_view typed_units();
std::string_view safe_ceilings();
std::string_view solubility();
std::string_view solution_densities();
std::string_view targets();
std::string_view water_limits();
} // namespace butte::core::embedded
