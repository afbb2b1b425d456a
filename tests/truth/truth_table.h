#pragma once
#include "support/run_cli.h"

#include <gtest/gtest.h>
#include <map>
#include <string>
#include <vector>

/// Tables of figures from outside (tests/data/truth), and the questions the tests ask of them.
namespace butte::test {

using Json = nlohmann::json;

/// The lines of a table in JSON lines.
std::vector<Json> truthLines(const std::string& file);

/// The rows of a table in CSV without quotes, by column.
std::vector<std::map<std::string, std::string>> truthRows(const std::string& file);

/// One litre that holds these salts (g/L) and nothing else; "water" may be added.
Json oneLitre(const std::map<std::string, double>& gramsPerLitre);
/// The same of a table's object.
Json oneLitreOf(const Json& gramsPerLitre);

/// What the verb says; a failed row where it refuses.
Json answerTo(const std::string& verb, const Json& question);

/// Grams of a mole of the formula, as the program itself has it (checked against Open Babel elsewhere).
double gramsPerMole(const std::string& formula);

/// How far `got` lies outside of the span of `wanted` (numbers; null is no figure): 0 within.
double outside(const Json& wanted, double got);

} // namespace butte::test
