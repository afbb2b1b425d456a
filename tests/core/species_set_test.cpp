#include "solution/species_set.h"

#include <gtest/gtest.h>

using namespace butte::core;

namespace {

using C = Component;

ComponentSet setOf(std::initializer_list<Component> list) {
  ComponentSet out;
  for (const auto c : list)
    out.set(static_cast<std::size_t>(c));
  return out;
}

const Temperature warm = Temperature::fromCelsius(25);
const ComponentSet hard = setOf({C::Ca, C::Mg, C::Carbonate, C::Phosphate, C::SO4, C::Cl, C::Zn});

const SpeciesSet::Active& find(const SpeciesSet& set, std::string_view name) {
  const auto index = *EquilibriumData::instance().speciesIndex(name);
  for (const auto& s : set.species()) {
    if (s.record == index) return s;
  }
  throw std::runtime_error("no such species: " + std::string(name));
}

double powerOf(const SpeciesSet::Active& species, int unknown) {
  for (int t = 0; t < species.termCount; ++t) {
    const auto& term = species.terms[static_cast<std::size_t>(t)];
    if (term.unknown == unknown) return term.power;
  }
  return 0;
}

} // namespace

TEST(SpeciesSet, HoldsTheSpeciesThatItsComponentsCanMake) {
  const SpeciesSet set(hard, {}, warm);
  EXPECT_EQ(set.unknowns(), 8); // seven components, and hydrogen
  const auto& data = EquilibriumData::instance();
  std::size_t possible = 0;
  for (const auto& species : data.species())
    possible += (species.parts & ~hard).none();
  EXPECT_EQ(set.species().size(), possible);
  EXPECT_EQ(set.unknownOf(static_cast<std::size_t>(C::K)), -1);
  const auto& pair = find(set, "CaSO4(aq)");
  EXPECT_EQ(powerOf(pair, set.unknownOf(static_cast<std::size_t>(C::Ca))), 1);
  EXPECT_EQ(powerOf(pair, set.unknownOf(static_cast<std::size_t>(C::SO4))), 1);
  EXPECT_EQ(powerOf(pair, set.hydrogenUnknown()), 0);
  EXPECT_EQ(powerOf(find(set, "H3PO4(aq)"), set.hydrogenUnknown()), 3);
}

TEST(SpeciesSet, PairsAreTheProductsOfTheTerms) {
  const SpeciesSet set(hard, {}, warm);
  constexpr auto n = static_cast<std::size_t>(SpeciesSet::mostUnknowns);
  std::size_t next = 0;
  for (const auto& species : set.species()) {
    double sum = 0;
    for (int i = 0; i < species.pairCount; ++i, ++next) {
      const auto& pair = set.pairs()[next];
      const int row = static_cast<int>(pair.place / n), column = static_cast<int>(pair.place % n);
      EXPECT_GE(row, column);
      EXPECT_EQ(pair.product, powerOf(species, row) * powerOf(species, column));
      sum += row == column ? pair.product : 2 * pair.product;
    }
    double powers = 0; // the sum over all places is the square of the powers' sum
    for (int t = 0; t < species.termCount; ++t)
      powers += species.terms[static_cast<std::size_t>(t)].power;
    EXPECT_DOUBLE_EQ(sum, powers * powers);
  }
  EXPECT_EQ(next, set.pairs().size());
}

TEST(SpeciesSet, OwnFormsAreThoseOfOneComponent) {
  const SpeciesSet set(hard, {}, warm);
  std::vector<std::string> ofPhosphate, ofWater;
  for (const auto& form : set.ownForms()) {
    const auto& name = EquilibriumData::instance().species()[set.species()[form.species].record].name;
    if (form.unknown == set.unknownOf(static_cast<std::size_t>(C::Phosphate))) ofPhosphate.push_back(name);
    if (form.unknown == set.hydrogenUnknown()) ofWater.push_back(name);
  }
  EXPECT_EQ(ofPhosphate, (std::vector<std::string>{"PO4-3", "HPO4-2", "H2PO4-", "H3PO4(aq)"}));
  EXPECT_EQ(ofWater, (std::vector<std::string>{"H+", "OH-"}));
}

TEST(SpeciesSet, WhatIsHeldGoesIntoTheConstants) {
  const double lnHydrogen = -7 * std::log(10.0);
  const SpeciesSet free(hard, {}, warm), held(hard, {lnHydrogen, {}}, warm);
  EXPECT_EQ(held.hydrogenUnknown(), -1);
  EXPECT_EQ(held.unknowns(), 7);
  EXPECT_NEAR(find(held, "HPO4-2").lnK, find(free, "HPO4-2").lnK + lnHydrogen, 1e-12);
  EXPECT_TRUE(held.hydrogenUses().empty());
  // An open gas: CO3-2 = gas - 2 H+, with water taking part.
  const SpeciesSet open(hard, {{}, -12.5}, warm);
  EXPECT_EQ(open.unknownOf(static_cast<std::size_t>(C::Carbonate)), -1);
  const auto& carbonate = find(open, "CO3-2");
  EXPECT_NEAR(carbonate.lnK, -12.5, 1e-12);
  EXPECT_EQ(powerOf(carbonate, open.hydrogenUnknown()), -2);
  EXPECT_EQ(carbonate.water, 1);
  // Without a carbonate of its own a solution takes it from the gas.
  EXPECT_NO_THROW(find(SpeciesSet(setOf({C::K}), {{}, -12.5}, warm), "HCO3-"));
}

TEST(SpeciesSet, SaysWhereAComponentIsMissing) {
  const SpeciesSet set(setOf({C::Ca, C::Cl}), {}, warm);
  const auto& data = EquilibriumData::instance();
  EXPECT_TRUE(std::isnan(set.reduce(data.solids()[*data.solidIndex("gypsum")].dissolved).lnHeld));
}

TEST(SpeciesSet, IsKeptForTheNextSolutionLikeIt) {
  const auto first = SpeciesSet::of(hard, {}, warm);
  EXPECT_EQ(SpeciesSet::of(hard, {}, warm), first);
  EXPECT_NE(SpeciesSet::of(hard, {}, Temperature::fromCelsius(24)), first);
  EXPECT_NE(SpeciesSet::of(hard, {{}, -12.5}, warm), first);
  EXPECT_NE(SpeciesSet::of(setOf({C::Ca, C::Cl}), {}, warm), first);
  EXPECT_NE(SpeciesSet::of(hard, {-16.0, {}}, warm), SpeciesSet::of(hard, {-16.0, {}}, warm));
}

TEST(SpeciesSet, ManyOthersDoNotChangeWhatItHolds) {
  for (int i = 0; i < 300; ++i) {
    const auto set = SpeciesSet::of(hard, {}, Temperature::fromCelsius(5 + 0.1 * (i % 100)));
    EXPECT_EQ(set->unknowns(), 8);
    EXPECT_NEAR(find(*set, "HPO4-2").lnK,
                find(SpeciesSet(hard, {}, Temperature::fromCelsius(5 + 0.1 * (i % 100))), "HPO4-2").lnK, 0);
  }
}
