#include "tank/crop_uptake.h"

#include "base/csv.h"
#include "base/embedded.h"

#include <algorithm>
#include <array>
#include <cassert>
#include <cctype>

namespace butte::core {
namespace {

constexpr std::array<std::string_view, 3> seasons{"winter", "spring/autumn", "summer"};

struct Row {
  std::string crop, quantity, season, climate;
  std::optional<Nutrient> nutrient;
  PublishedRange range;
};

std::vector<Row> readRows() {
  const CsvTable table(embedded::crop_uptake());
  std::vector<Row> out;
  for (std::size_t i = 0; i < table.rowCount(); ++i) {
    const auto value = table.number(i, "value");
    assert(value && "data/crop_uptake.csv has a row without its figure");
    out.push_back({table.cell(i, "crop"),
                   table.cell(i, "quantity"),
                   table.cell(i, "season"),
                   table.cell(i, "climate"),
                   nutrientFromKey(table.cell(i, "element")),
                   {*value, table.number(i, "value_low").value_or(*value),
                    table.number(i, "value_high").value_or(*value), table.cell(i, "source"),
                    table.cell(i, "confidence")}});
  }
  return out;
}

/// The rows of one crop; those that name no climate count for both.
CropUptake collect(const std::vector<Row>& rows, const std::string& crop, UptakeClimate climate) {
  CropUptake out{crop, climate, {}, {}, std::vector<PublishedRange>(seasons.size()), {}};
  const std::string_view wanted = climate == UptakeClimate::Warm ? "warm" : "cool";
  const auto ballastOf = [&](Nutrient nutrient) -> BallastLimit& {
    for (auto& one : out.ballast)
      if (one.nutrient == nutrient) return one;
    return out.ballast.emplace_back(BallastLimit{nutrient, {}, {}});
  };
  for (const auto& row : rows) {
    if (row.crop != crop || (!row.climate.empty() && row.climate != wanted)) continue;
    if (row.quantity == "uptake_concentration") {
      out.elements.push_back({*row.nutrient, row.range});
    } else if (row.quantity == "na_cl_uptake_limit") {
      ballastOf(*row.nutrient).takenMillimolesPerLitre = row.range;
    } else if (row.quantity == "root_zone_max") {
      ballastOf(*row.nutrient).mostMillimolesPerLitre = row.range;
    } else if (row.quantity == "plants_per_area") {
      out.plantsPerM2 = row.range;
    } else if (row.quantity == "water_uptake") {
      const auto season = std::find(seasons.begin(), seasons.end(), row.season);
      assert(season != seasons.end());
      out.waterLitresPerM2Day[static_cast<std::size_t>(season - seasons.begin())] = row.range;
    }
  }
  return out;
}

std::vector<CropUptake> readUptakes() {
  const auto rows = readRows();
  std::vector<CropUptake> out;
  for (const auto& row : rows) {
    if (row.climate.empty()) continue;
    const auto climate = row.climate == "warm" ? UptakeClimate::Warm : UptakeClimate::Cool;
    const bool there = std::any_of(out.begin(), out.end(), [&](const CropUptake& one) {
      return one.crop == row.crop && one.climate == climate;
    });
    if (!there) out.push_back(collect(rows, row.crop, climate));
  }
  return out;
}

std::string inLowerCase(std::string_view text) {
  std::string out(text);
  std::transform(out.begin(), out.end(), out.begin(), [](unsigned char c) { return std::tolower(c); });
  return out;
}

} // namespace

Uptake CropUptake::uptake() const {
  Uptake out;
  for (const auto& element : elements)
    out.millimolesPerLitre.add(element.nutrient, element.millimolesPerLitre.value);
  for (const auto& limit : ballast)
    out.shareOfConcentration.add(limit.nutrient, limit.shareOfConcentration());
  return out;
}

const std::vector<CropUptake>& cropUptakes() {
  static const auto uptakes = readUptakes();
  return uptakes;
}

const CropUptake* uptakeOf(std::string_view crop, UptakeClimate climate) {
  const auto wanted = inLowerCase(crop);
  const CropUptake* found = nullptr;
  for (const auto& one : cropUptakes()) {
    if (wanted.find(one.crop) == std::string::npos) continue;
    // "sweet pepper" before "pepper", the climate's own before the other.
    const bool closer = !found || one.crop.size() > found->crop.size();
    if (closer || (one.crop.size() == found->crop.size() && one.climate == climate)) found = &one;
  }
  return found;
}

std::vector<std::string> cropsWithUptake() {
  std::vector<std::string> out;
  for (const auto& one : cropUptakes())
    if (std::find(out.begin(), out.end(), one.crop) == out.end()) out.push_back(one.crop);
  return out;
}

} // namespace butte::core
