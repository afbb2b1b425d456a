#include "truth_table.h"

namespace butte::test {
namespace {

std::vector<std::string> linesOf(const std::string& file) {
  std::ifstream in(std::string(BUTTE_TEST_DATA) + "/data/truth/" + file);
  std::vector<std::string> out;
  for (std::string line; std::getline(in, line);)
    if (!line.empty()) out.push_back(line);
  EXPECT_GT(out.size(), 10u) << file << " is missing";
  return out;
}

std::vector<std::string> cellsOf(const std::string& line) {
  std::vector<std::string> out;
  std::istringstream in(line);
  for (std::string cell; std::getline(in, cell, ',');)
    out.push_back(cell);
  return out;
}

} // namespace

std::vector<Json> truthLines(const std::string& file) {
  std::vector<Json> out;
  for (const auto& line : linesOf(file))
    out.push_back(Json::parse(line));
  return out;
}

std::vector<std::map<std::string, std::string>> truthRows(const std::string& file) {
  std::vector<std::map<std::string, std::string>> out;
  const auto lines = linesOf(file);
  const auto columns = cellsOf(lines.front());
  for (std::size_t i = 1; i < lines.size(); ++i) {
    const auto cells = cellsOf(lines[i]);
    auto& row = out.emplace_back();
    for (std::size_t c = 0; c < columns.size() && c < cells.size(); ++c)
      row[columns[c]] = cells[c];
  }
  return out;
}

Json oneLitre(const std::map<std::string, double>& gramsPerLitre) {
  Json question{{"volume_l", 1}, {"products", Json::array()}, {"weights_g", Json::object()}};
  for (const auto& [formula, grams] : gramsPerLitre) {
    const auto id = "p" + std::to_string(question["products"].size());
    question["products"].push_back({{"id", id}, {"formula", formula}});
    question["weights_g"][id] = grams;
  }
  return question;
}

Json oneLitreOf(const Json& gramsPerLitre) {
  return oneLitre(gramsPerLitre.get<std::map<std::string, double>>());
}

Json answerTo(const std::string& verb, const Json& question) {
  const auto run = cli(verb, question.dump());
  EXPECT_TRUE(run.code == 0 || run.code == 3) << verb << " of " << question << ": " << run.err;
  return run.out.empty() ? Json() : run.parsed();
}

double gramsPerMole(const std::string& formula) {
  const auto run = cli("composition '" + formula + "'");
  EXPECT_EQ(run.code, 0) << run.err;
  return run.parsed()["molar_mass_g_per_mol"].get<double>();
}

double outside(const Json& wanted, double got) {
  double low = 1e300, high = -1e300;
  for (const auto& figure : wanted) {
    if (figure.is_null()) continue;
    low = std::min(low, figure.get<double>());
    high = std::max(high, figure.get<double>());
  }
  return low > high ? 0 : std::max({low - got, got - high, 0.0});
}

} // namespace butte::test
