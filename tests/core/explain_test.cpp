/// Explanations are held to their word: relaxing each named limit alone helps, relaxing all the others
/// together does not.
#include "solve/linear_model.h"
#include "solve/linear_program.h"
#include "solve/mends.h"
#include "support/random_formula.h"
#include "words.h"

#include <gmock/gmock.h>

using namespace butte;
using namespace butte::core;
using Eigen::Index;
using Eigen::VectorXd;

namespace {

/// Every limit on one element's way, written down anew: independent of the search that names them.
struct Room {
  LinearLimits limits;
  std::vector<std::string> names; ///< of the inequalities
};

std::string nameOf(const BindingLimit& limit) {
  switch (limit.kind) {
  case LimitKind::Band:
    return "band " + std::string(nutrientKey(limit.nutrient)) + (limit.upper ? " upper" : " lower");
  case LimitKind::Cap:
    return "cap " + std::string(nutrientKey(limit.nutrient));
  case LimitKind::Most:
    return "most " + limit.product;
  case LimitKind::Least:
    return "least " + limit.product;
  case LimitKind::Held:
    return "held " + limit.product;
  default:
    return "other";
  }
}

Room roomOf(const SolveRequest& request, const VectorXd& x, std::size_t skippedRow) {
  const auto n = static_cast<Index>(request.shelf.size());
  Room room{LinearLimits::boundsOnly(VectorXd::Zero(n), VectorXd::Constant(n, 1e6)), {}};
  const auto add = [&](const std::string& name, const Eigen::RowVectorXd& row, double most) {
    room.limits.addInequality(row, most);
    room.names.push_back(name);
  };
  const auto carriers = [&](Nutrient nutrient) {
    Eigen::RowVectorXd row(n);
    for (Index j = 0; j < n; ++j)
      row[j] = 1000 * request.shelf[static_cast<std::size_t>(j)].composition.massFraction.of(nutrient);
    return row;
  };
  for (std::size_t i = 0; i < request.rows.size(); ++i) {
    if (i == skippedRow) continue;
    const auto& target = request.rows[i];
    const auto row = carriers(target.nutrient);
    const double base = request.water.milligramsPerLitre.of(target.nutrient), now = base + row.dot(x);
    const auto key = std::string(nutrientKey(target.nutrient));
    add("band " + key + " upper", row, std::max(target.bandHigh(), now) - base + 1e-7);
    add("band " + key + " lower", -row, base - std::min(target.bandLow(), now) + 1e-7);
  }
  for (const auto& cap : request.caps)
    add("cap " + std::string(nutrientKey(cap.nutrient)), carriers(cap.nutrient),
        cap.milligramsPerLitre - request.water.milligramsPerLitre.of(cap.nutrient));
  for (Index j = 0; j < n; ++j) {
    const auto& p = request.shelf[static_cast<std::size_t>(j)];
    const Eigen::RowVectorXd one = Eigen::RowVectorXd::Unit(n, j);
    const double held = p.locked ? (*p.locked / request.volume).gramsPerLitre() : 0;
    if (p.locked) add("held " + p.id, one, held);
    if (p.locked) add("held " + p.id, -one, -held);
    if (p.most) add("most " + p.id, one, (*p.most / request.volume).gramsPerLitre());
  }
  return room;
}

/// How near the element comes with some limits given way: `give` says how much each gets.
double nearest(const SolveRequest& request, const Room& room, const Reason& reason,
               const std::function<double(const std::string&)>& give) {
  LinearLimits limits = room.limits;
  for (std::size_t i = 0; i < room.names.size(); ++i)
    limits.inequalityRhs[static_cast<Index>(i)] += give(room.names[i]);
  VectorXd cost(static_cast<Index>(request.shelf.size()));
  for (Index j = 0; j < cost.size(); ++j)
    cost[j] = (reason.over ? 1000 : -1000) *
              request.shelf[static_cast<std::size_t>(j)].composition.massFraction.of(reason.nutrient);
  const auto x = linearProgram(cost, limits);
  EXPECT_TRUE(x);
  const double base = request.water.milligramsPerLitre.of(reason.nutrient);
  return x ? base + std::abs(cost.dot(*x)) : base;
}

struct Tally {
  int explained = 0, degenerate = 0;
};

void holdToItsWord(const SolveRequest& request, const SolveAnswer& answer, const Reason& reason,
                   Tally& tally) {
  VectorXd x(static_cast<Index>(answer.grams.size()));
  for (Index j = 0; j < x.size(); ++j)
    x[j] = (answer.grams[static_cast<std::size_t>(j)] / request.volume).gramsPerLitre();
  std::size_t row = 0;
  while (request.rows[row].nutrient != reason.nutrient)
    ++row;
  const auto room = roomOf(request, x, row);
  const double sign = reason.over ? -1 : 1;
  const double now = nearest(request, room, reason, [](const std::string&) { return 0.0; });
  EXPECT_NEAR(now, reason.reachable, 1e-4 * (1 + now));
  std::vector<std::string> named;
  for (const auto& limit : reason.limits)
    named.push_back(nameOf(limit));
  const auto isNamed = [&](const std::string& name) {
    return std::find(named.begin(), named.end(), name) != named.end();
  };
  // All that is not named may go: no gain.
  const double without =
      nearest(request, room, reason, [&](const std::string& name) { return isNamed(name) ? 0.0 : 1e5; });
  EXPECT_NEAR(sign * without, sign * now, 1e-4 * (1 + now)) << "unnamed limits mattered";
  // Each named one alone, by a little: a gain.
  bool everyOne = true;
  for (const auto& name : named) {
    const double alone =
        nearest(request, room, reason, [&](const std::string& other) { return other == name ? 1e-2 : 0.0; });
    everyOne = everyOne && sign * (alone - now) > 1e-9;
  }
  ++tally.explained;
  tally.degenerate += !everyOne;
}

} // namespace

TEST(Explain, EveryNamedLimitHoldsAndNoOtherDoes) {
  std::mt19937 random(4);
  Tally tally;
  for (int k = 0; k < 400; ++k) {
    auto request = test::randomRequest(random);
    request.require = k % 2 == 0 ? Require::Best : Require::BandsFirst;
    const auto answer = solve(request);
    ASSERT_TRUE(answer);
    if (answer->status != SolveStatus::Best) continue;
    for (const auto& reason : answer->reasons) {
      if (reason.kind == ReasonKind::ComesWith || reason.kind == ReasonKind::Cap)
        holdToItsWord(request, *answer, reason, tally);
    }
  }
  EXPECT_GT(tally.explained, 200);
  // Where two limits stop the same move at the same point, giving one way alone can't help: rare, and no lie.
  EXPECT_LT(tally.degenerate, tally.explained / 25);
}

TEST(Explain, WithTheBandsFirstNothingIsTradedAway) {
  std::mt19937 random(5);
  int traded = 0, first = 0;
  for (int k = 0; k < 300; ++k) {
    auto request = test::randomRequest(random);
    const auto closest = solve(request);
    request.require = Require::BandsFirst;
    const auto bands = solve(request);
    ASSERT_TRUE(closest && bands);
    if (closest->status == SolveStatus::Impossible) continue;
    EXPECT_LE(bands->violation, closest->violation + 1e-7);
    for (const auto& reason : closest->reasons)
      traded += reason.kind == ReasonKind::Traded;
    for (const auto& reason : bands->reasons)
      first += reason.kind == ReasonKind::Traded;
  }
  EXPECT_GT(traded, 0);
  EXPECT_EQ(first, 0) << "nothing that could be had for free was left";
}

TEST(Explain, EveryCarrierThatMeetsOneCap) {
  SolveRequest request;
  request.water = pureWater();
  request.shelf = {test::salt("K2SO4")};
  request.rows = {{Nutrient::K, 200}};
  request.caps = {{Nutrient::S, 40}};
  const auto answer = solve(request);
  ASSERT_EQ(answer->reasons.size(), 1u);
  EXPECT_EQ(words::reasonText(answer->reasons[0]),
            "Potassium falls short: it can't rise further: every product that carries it also brings sulfur, "
            "which stands at its cap.");
}

TEST(Explain, SeveralCarriersBringAndTakeInThePlural) {
  Reason reason;
  reason.kind = ReasonKind::ComesWith;
  reason.nutrient = Nutrient::K;
  reason.other = Nutrient::S;
  BindingLimit limit;
  limit.kind = LimitKind::Band;
  limit.nutrient = Nutrient::S;
  limit.carriers = {"K2SO4", "KHSO4"};
  reason.limits = {limit};
  EXPECT_THAT(words::reasonText(reason), ::testing::HasSubstr("K2SO4 and KHSO4 also bring sulfur"));
  reason.over = true;
  EXPECT_THAT(words::reasonText(reason), ::testing::HasSubstr("K2SO4 and KHSO4 take along sulfur"));
  reason.limits[0].carriers.pop_back();
  EXPECT_THAT(words::reasonText(reason), ::testing::HasSubstr("K2SO4 takes along sulfur"));
}

TEST(Mends, AreSolvedAnewAndHelp) {
  std::mt19937 random(6);
  int mended = 0;
  std::set<MendKind> kinds;
  for (int k = 0; k < 60; ++k) {
    const auto request = test::randomRequest(random);
    const auto answer = solve(request);
    ASSERT_TRUE(answer);
    const std::vector<ShelfProduct> candidates{test::salt("Mg(NO3)2·6H2O"), test::salt("NH4NO3"),
                                               test::salt("KH2PO4")};
    for (const auto& mend : mendsFor(request, *answer, candidates, {})) {
      ++mended;
      kinds.insert(mend.kind);
      const auto again = solve(mend.request);
      ASSERT_TRUE(again);
      const int off = offBands(mend.request, again->grams);
      EXPECT_EQ(off, mend.offAfter);
      EXPECT_EQ(offBands(request, answer->grams), mend.offBefore);
      EXPECT_TRUE(off < mend.offBefore || again->violation < answer->violation);
    }
  }
  EXPECT_GT(mended, 40);
  for (const auto kind : {MendKind::AddProduct, MendKind::BandsFirst, MendKind::WidenBand, MendKind::LetFree})
    EXPECT_TRUE(kinds.contains(kind)) << static_cast<int>(kind);
}

TEST(Mends, AShareOfPurerWaterAndACap) {
  SolveRequest request;
  request.water = test::waterOf({{"Ca", 120}, {"Na", 5}});
  request.shelf = {test::salt("KNO3"), test::salt("KCl")};
  request.rows = {{Nutrient::Ca, 60, 5, 1}, {Nutrient::K, 100, 5, 1}};
  const auto answer = solve(request);
  const WaterOption pure{"rain", 0, 1, [&](double share) {
                           Water water = request.water;
                           water.milligramsPerLitre = {};
                           water.milligramsPerLitre.addScaled(request.water.milligramsPerLitre, 1 - share);
                           return water;
                         }};
  const auto mends = mendsFor(request, *answer, {}, {pure});
  const auto share = std::find_if(mends.begin(), mends.end(),
                                  [](const Mend& mend) { return mend.kind == MendKind::MorePure; });
  ASSERT_NE(share, mends.end());
  EXPECT_NEAR(share->value, 0.48, 0.011) << "120 mg/L down to the top of 60 ± 5 %";
  request.water = pureWater();
  request.shelf = {test::salt("KCl")};
  request.rows = {{Nutrient::K, 100, 5, 1}};
  request.caps = {{Nutrient::Cl, 50}};
  const auto capped = mendsFor(request, *solve(request), {}, {});
  ASSERT_FALSE(capped.empty());
  EXPECT_EQ(capped[0].kind, MendKind::LiftCap);
  EXPECT_NEAR(capped[0].value, 100 * 35.45 / 39.0983, 0.1) << "chloride beside 100 mg/L of potassium";
}
