#pragma once
#include "table/mapping.h"

#include <string>

/// What the columns of another's table are taken for, in a grower's words.
namespace butte::words {

/// "products", "waters' reports": of what the table may be.
std::string tableOfText(reading::TableOf table);
/// What a column holds: "name of the product", "Ca", "time of day"; empty for one that is passed over.
std::string fieldText(reading::TableOf table, const std::string& column);
/// In what its figures stand: "mg/L", "for 25 kg", "for a bag".
std::string columnUnitText(const reading::Field& field, const std::string& unit, double per);
/// What a mapping leaves open, and what would settle it.
std::string mappingQuestionText(reading::MappingQuestion question, reading::TableOf table);

} // namespace butte::words
