#pragma once
#include "formula_document.h"
#include "json_reader.h"
#include "typed_numbers.h"

/// Formula documents as JSON: read, made, written.
namespace butte::exchange {

/// Reads a formula document. Every problem names the key's path.
core::Result<FormulaDocument> readFormulaDocument(const Json& json);

/// What stands in the way of opening it; nothing when it is whole: it reads, and its water can be reckoned
/// with.
std::optional<core::Problem> formulaProblem(const Json& json);

/// Text of a file to JSON, checked to be a formula that this program knows: BadJson, WrongType, NewerFormat
/// ...
core::Result<Json> parseFormulaText(std::string_view text);

/// The file's text: indented, keys in the document's order, a line break at the end.
std::string formulaText(const Json& json);

/// An empty formula: pure water, no target, no products, two tanks.
Json emptyFormula();

/// Writes into every shipped product of a shelf (or of a whole formula) what the catalogue says of it today,
/// unless it stands there already: a later catalogue then changes nothing that a grower made.
void keepShippedFigures(Json& shelfOrFormula);

/// A shipped target as it stands in a formula.
Json targetJson(const core::CatalogueTarget& target);
/// A shipped product as it comes onto a shelf, switched on.
Json shelfEntry(const std::string& catalogueId);

/// Reads `colour`, `hatch` and `hazards` of a product; problems go to the reader.
void readLook(ObjectReader& reader, DocumentProduct& product);

} // namespace butte::exchange
