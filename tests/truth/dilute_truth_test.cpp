// Feeds, titrations and what falls out, against PHREEQC's three databases (tests/data/truth/README.md).
#include "truth_table.h"

using namespace butte::test;

namespace {

constexpr double airOf417ppm = 4.1686938347033546e-4; // 10^-3.38 atm, as the tables were made

Json feedOf(const Json& row) {
  auto question = oneLitreOf(row["g_per_l"]);
  question["water"] = row["water"];
  question["temperature_c"] = row["water"]["temperature_c"];
  return question;
}

} // namespace

TEST(TruthFeeds, AcidityClosedAndOpenToTheAir) {
  for (const auto& row : truthLines("feeds.jsonl")) {
    auto question = feedOf(row);
    question["co2"] = "closed";
    const auto closed = answerTo("equilibrium", question);
    EXPECT_LE(outside(row["ph_closed"], closed["ph"]), 0.01) << closed["ph"] << " in " << row["g_per_l"];
    question["co2"] = "open";
    question["pco2_atm"] = airOf417ppm;
    const auto open = answerTo("equilibrium", question);
    EXPECT_LE(outside(row["ph_open_417ppm"], open["ph"]), 0.01) << open["ph"] << " in " << row["g_per_l"];
  }
}

TEST(TruthFeeds, IonicStrength) {
  for (const auto& row : truthLines("feeds.jsonl")) {
    auto question = feedOf(row);
    question["co2"] = "closed";
    const auto answer = answerTo("equilibrium", question);
    EXPECT_LE(outside(row["ionic_strength_mol"], answer["ionic_strength_mol_per_l"]), 0.0008)
        << answer["ionic_strength_mol_per_l"] << " in " << row["g_per_l"];
  }
}

TEST(TruthFeeds, HowNearEachSolidIsAtTheWantedAcidity) {
  int figures = 0;
  for (const auto& row : truthLines("feeds.jsonl")) {
    auto question = feedOf(row);
    question["co2"] = "closed";
    question["ph"] = 5.8;
    const auto answer = answerTo("equilibrium", question);
    for (const auto& [solid, wanted] : row["si_at_ph_5.8"].items()) {
      const auto got = answer["saturation_index"].value(solid, Json());
      if (got.is_null()) continue;
      ++figures;
      EXPECT_LE(outside(wanted, got), solid == "brushite" ? 0.06 : 0.03)
          << solid << " " << got << " in " << row["g_per_l"];
    }
  }
  EXPECT_GT(figures, 200);
}

TEST(TruthTitrations, TheAcidToAWantedAcidity) {
  for (const auto& row : truthLines("titrations.jsonl")) {
    const std::string acid = row["acid"];
    for (const bool open : {false, true}) {
      const auto& wanted = row[open ? "mmol_per_l_open_417ppm" : "mmol_per_l_closed"];
      Json question{{"water", row["water"]},
                    {"acid", {{"id", "a"}, {"formula", acid}}},
                    {"target_ph", row["target_ph"]},
                    {"volume_l", 1000},
                    {"co2", open ? "open" : "closed"}};
      if (open) question["pco2_atm"] = airOf417ppm;
      if (std::any_of(wanted.begin(), wanted.end(), [](const Json& f) { return f.is_null(); })) continue;
      const auto answer = answerTo("acid", question);
      ASSERT_TRUE(answer["dose_g"].is_number()) << question;
      const double got = answer["dose_g"].get<double>() / gramsPerMole(acid);
      EXPECT_LE(outside(wanted, got), std::max(0.004, 0.005 * got)) << got << " mmol/L for " << question;
    }
  }
}

// Ionic strengths to 0.2 mol/L.
TEST(TruthPrecipitation, WhatFallsOutAndTheAcidityItLeaves) {
  const auto hold = [&](double got, double wanted, double room, const std::string& what, const Json& row) {
    EXPECT_LT(std::abs(got - wanted), room)
        << what << " " << got << " for " << wanted << " of " << row["g_per_l"];
  };
  for (const auto& row : truthLines("precipitation.jsonl")) {
    auto question = oneLitreOf(row["g_per_l"]);
    question["temperature_c"] = row["temperature_c"];
    question["co2"] = "closed";
    const auto answer = answerTo("equilibrium", question);
    std::map<std::string, double> got;
    for (const auto& solid : answer["solids"])
      got[solid["name"]] = solid["g_per_l"];
    for (const std::string solid : {"gypsum", "brushite", "calcite"}) {
      const double wanted = row["falls_out_g_per_l"].value(solid, 0.0);
      hold(got[solid], wanted, std::max(0.08 * wanted, solid == "gypsum" ? 0.12 : 0.015), solid, row);
    }
    const auto& after = answer["ph_after_solids"].is_null() ? answer["ph"] : answer["ph_after_solids"];
    hold(after, row["ph_after"], 0.08, "pH", row);
  }
}
