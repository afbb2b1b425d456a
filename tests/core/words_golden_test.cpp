// Every code of the core as the sentence that people read, with figures as they come: one table a subject, as
// they are kept (support/golden.h). A code without a sentence, two that read alike, or a place left empty
// shows at once.
#include "cautions.h"
#include "dose/reading_causes.h"
#include "formula_words.h"
#include "product/catalogue.h"
#include "product/shipped.h"
#include "stock_words.h"
#include "support/golden.h"
#include "water_words.h"
#include "words.h"

#include <gmock/gmock.h>
#include <set>

using namespace butte;
using namespace butte::core;

namespace {

/// Collects lines; none may be empty, have a place left open, or stand twice.
class Table {
public:
  explicit Table(std::string name) : m_name(std::move(name)) {}
  ~Table() { test::expectAsKept(m_name, m_text); }

  void add(const std::string& what, const std::string& sentence) {
    EXPECT_FALSE(sentence.empty()) << what;
    EXPECT_EQ(sentence.find('{'), std::string::npos) << sentence;
    EXPECT_EQ(sentence.find("  "), std::string::npos) << sentence;
    EXPECT_TRUE(m_seen.insert(sentence).second) << "two read alike: " << sentence;
    keep(what, sentence);
  }
  /// Of what may read like another.
  void keep(const std::string& what, const std::string& sentence) {
    m_text += what + " | " + sentence + "\n";
  }

private:
  std::string m_name, m_text;
  std::set<std::string> m_seen;
};

std::string numbered(const char* what, int code) {
  return std::string(what) + " " + std::to_string(code);
}

} // namespace

TEST(WordsGolden, Problems) {
  // The values that the core gives with each code (base/problem.h).
  const struct {
    ProblemCode code;
    const char* where;
    std::vector<std::string> values;
  } problems[] = {
      {ProblemCode::FormulaEmpty, "products[0].formula", {}},
      {ProblemCode::FormulaSyntax, "products[0].formula", {"K(NO3", "6", "\")\"", "the end"}},
      {ProblemCode::UnknownElement, "products[0].formula", {"Xy2O", "1", "Xy"}},
      {ProblemCode::FormulaTooLarge, "products[0].formula", {"K99999999", "1000000"}},
      {ProblemCode::NotANumber, "volume_l", {"ten"}},
      {ProblemCode::Unclear, "TEXT", {"1,250 g", "1250, 1.25"}},
      {ProblemCode::OutOfRange, "stock.factor", {"0", "above 0"}},
      {ProblemCode::OutsideLimits, "water.ph", {"15", "0", "14", ""}},
      {ProblemCode::NotAbove, "volume_l", {"0", "0", "L"}},
      {ProblemCode::NotOneOf, "mode", {"best", "closest, bands_first, cheapest"}},
      {ProblemCode::MissingKey, "target_mg_per_l", {"a target per element in mg/L"}},
      {ProblemCode::UnknownKey, "wather", {"water, products"}},
      {ProblemCode::DuplicateKey, "water.SO4", {"SO4", "S"}},
      {ProblemCode::WrongType, "volume_l", {"a number", "a text"}},
      {ProblemCode::UnknownUnit, "unit", {"parsec"}},
      {ProblemCode::IncompatibleUnits, "unit", {"mg/L", "degC"}},
      {ProblemCode::NeedsSubstance, "unit", {"mg/L", "meq/L"}},
      {ProblemCode::UnknownSubstance, "substance", {"Unobtainium"}},
      {ProblemCode::NoCharge, "substance", {"urea"}},
      {ProblemCode::CarbonOrCharge, "TO", {"CaCO3", "HCO3"}},
      {ProblemCode::FormulaAndLabel, "products[1]", {}},
      {ProblemCode::NoComposition, "products[1]", {}},
      {ProblemCode::PurityBesideLabel, "products[1]", {}},
      {ProblemCode::LabelOverHundred, "products[1].label", {"112.4"}},
      {ProblemCode::PhosphiteNotPhosphate, "formula", {"KH2PO3"}},
      {ProblemCode::LabelDoubled, "products[1].label.P", {"P", "P2O5"}},
      {ProblemCode::UnknownProduct, "weights_g.kno4", {"kno4"}},
      {ProblemCode::DuplicateProduct, "products[2].id", {"kno3"}},
      {ProblemCode::UnknownTank, "products[2].tank", {"C", "A, B"}},
      {ProblemCode::ToleranceWithoutTarget, "tolerance_percent.Zn", {"Zn"}},
      {ProblemCode::NeedsPrice, "products[2]", {"kno3"}},
      {ProblemCode::BadJson, "input", {"a bracket is missing"}},
      {ProblemCode::BadFile, "FILE", {"the input passes 16 MB"}},
      {ProblemCode::CantBeRead, "FILE", {"No such file or directory"}},
      {ProblemCode::CantBeWritten, "FILE", {"Permission denied"}},
      {ProblemCode::NewerFormat, "version", {"9", "2"}},
      {ProblemCode::NoEquilibrium, "solution", {}},
      {ProblemCode::CannotReach, "target_ph", {"11"}},
      {ProblemCode::TooFewReadings, "readings", {"2"}},
      {ProblemCode::NotDeterminable, "readings", {}},
      {ProblemCode::NotABook, "book", {}},
      {ProblemCode::BookMissing, "book", {}},
      {ProblemCode::BookOlder, "book", {"3", "5"}},
      {ProblemCode::BookDamaged, "book", {"row 3 missing from index"}},
      {ProblemCode::BookNotWritable, "book", {"read-only file system"}},
      {ProblemCode::BookFull, "book", {}},
      {ProblemCode::BookBusy, "book", {}},
      {ProblemCode::BookReadOnly, "book", {"bench@greenhouse"}},
      {ProblemCode::BookConflict, "book", {}},
  };
  Table table("words_problems");
  int expected = 0;
  for (const auto& [code, where, values] : problems) {
    EXPECT_EQ(static_cast<int>(code), expected++) << "every code, in its order";
    table.add(numbered("problem", static_cast<int>(code)),
              words::problemLine(problemAt(code, where, values)));
  }
  EXPECT_EQ(expected, static_cast<int>(ProblemCode::BookConflict) + 1);
}

TEST(WordsGolden, Reasons) {
  Table table("words_reasons");
  for (int kind = 0; kind <= static_cast<int>(ReasonKind::AlkalinityConflict); ++kind) {
    for (const bool over : {false, true}) {
      Reason reason;
      reason.kind = static_cast<ReasonKind>(kind);
      reason.nutrient = Nutrient::K;
      reason.other = Nutrient::S;
      reason.over = over;
      reason.products = {"potassium nitrate", "potassium sulfate"};
      reason.has = over ? 262.4 : 171.3;
      reason.wants = 215;
      reason.reachable = over ? 240 : 190;
      const auto what = numbered("reason", kind) + (over ? " over" : " under");
      table.keep(what, words::reasonText(reason));
    }
  }
}

TEST(WordsGolden, LimitsThatHoldAnElement) {
  Table table("words_limits");
  for (int kind = 0; kind <= static_cast<int>(LimitKind::ChelateInstead); ++kind) {
    for (const bool upper : {true, false}) {
      Reason reason;
      reason.kind = ReasonKind::ComesWith;
      reason.nutrient = Nutrient::Mg;
      reason.has = 31;
      reason.wants = 48;
      BindingLimit limit;
      limit.kind = static_cast<LimitKind>(kind);
      limit.nutrient = Nutrient::S;
      limit.upper = upper;
      limit.product = "magnesium sulfate";
      limit.carriers = {"magnesium sulfate"};
      reason.limits = {limit};
      const bool hasEdges = limit.kind == LimitKind::Band || limit.kind == LimitKind::Ratio;
      if (upper || hasEdges)
        table.keep(numbered("limit", kind) + (upper ? " upper" : " lower"), words::reasonText(reason));
    }
  }
}

TEST(WordsGolden, WhatAWaterIsSaidToBe) {
  Table table("words_water");
  for (int remark = 0; remark <= static_cast<int>(WaterRemark::Estimated); ++remark) {
    const auto it = static_cast<WaterRemark>(remark);
    table.add(std::string(words::code(it)), words::waterRemarkText(it));
  }
  const DoubtFound doubts[] = {{WaterDoubt::ChargeUnbalanced, {5.24, 3.61, 0.42}},
                               {WaterDoubt::ConductivityDisagrees, {0.72, 0.51}},
                               {WaterDoubt::HardnessDisagrees, {310, 212.4}},
                               {WaterDoubt::AlkalinityDisagrees, {203, 164.2}},
                               {WaterDoubt::AlkalinityAgainstPh, {3.6, 4.1}},
                               {WaterDoubt::SolidsDisagree, {520, 388}},
                               {WaterDoubt::Softened, {0.12, 6.3}},
                               {WaterDoubt::PhOfPureWater, {9.2}},
                               {WaterDoubt::MagnesiumAboveCalcium, {3.4, 1.2}}};
  int expected = 0;
  for (const auto& doubt : doubts) {
    EXPECT_EQ(static_cast<int>(doubt.doubt), expected++);
    table.add(std::string(words::code(doubt.doubt)), words::doubtText(doubt));
  }
  const Rereading ways[] = {{RereadingKind::OtherForm, "HCO3", "alkalinity_as_CaCO3", 201, {}, 0},
                            {RereadingKind::OtherUnit, "Ca", "meq/L", 4.2, {}, 0},
                            {RereadingKind::OtherUnit, "", "mmol/L", 0, {}, 0},
                            {RereadingKind::Swapped, "Ca", "Mg", 78, {}, 0},
                            {RereadingKind::Missing, "", "Na", 23.4, {}, 0},
                            {RereadingKind::Slipped, "Cl", "Cl", 14.2, {}, 0}};
  for (const auto& way : ways) {
    table.add(numbered("rereading", static_cast<int>(way.kind)), words::rereadingText(way));
    table.keep(numbered("reread", static_cast<int>(way.kind)), words::rereadingDone(way));
  }
  for (int level = 0; level <= static_cast<int>(VerdictLevel::NotMeasured); ++level)
    table.add(numbered("level", level), words::levelText(static_cast<VerdictLevel>(level)));
}

TEST(WordsGolden, WhatAFormulaIsSaidToBe) {
  Table table("words_formula");
  for (int warning = 0; warning <= static_cast<int>(SolveWarning::PlainIronRusts); ++warning) {
    const auto it = static_cast<SolveWarning>(warning);
    table.add(std::string(words::code(it)), words::solveWarningText(it, "nitric acid"));
  }
  for (int remark = 0; remark <= static_cast<int>(LabelRemark::NitrogenRemainderAsNitrate); ++remark) {
    const auto it = static_cast<LabelRemark>(remark);
    table.add(std::string(words::code(it)), words::labelRemarkText(it, "19-6-20"));
  }
  for (int kind = 0; kind <= static_cast<int>(MendKind::MorePure); ++kind) {
    Mend mend;
    mend.kind = static_cast<MendKind>(kind);
    mend.product = "potassium sulfate";
    mend.nutrient = Nutrient::S;
    mend.value = mend.kind == MendKind::MorePure ? 0.42 : 18;
    mend.offBefore = 4;
    mend.offAfter = 4 - 1 - kind % 4;
    WaterOption option;
    option.name = "Roof rain";
    option.shareNow = 0.2;
    table.add(std::string(words::code(mend.kind)), words::mendText(mend, words::nameAsIs, {option}));
    table.keep(std::string(words::code(mend.kind)) + " effect", words::mendEffect(mend));
  }
  for (int slip = 0; slip <= static_cast<int>(SheetSlip::Halved); ++slip) {
    SuspectLine line;
    line.product = "potassium nitrate";
    line.stands = Mass::fromGrams(slip == static_cast<int>(SheetSlip::LeftOut) ? 0 : 50);
    line.fits = Mass::fromGrams(505);
    line.slip = static_cast<SheetSlip>(slip);
    line.thrownOff = {Nutrient::N, Nutrient::K};
    table.keep(std::string(words::code(line.slip)), words::suspectText(line));
  }
}

TEST(WordsGolden, DoubtsAboutAProduct) {
  Table table("words_doubts");
  for (int doubt = 0; doubt <= static_cast<int>(ProductDoubt::AcidityUnknown); ++doubt)
    table.add(numbered("doubt", doubt),
              words::productDoubtText({static_cast<ProductDoubt>(doubt), 131.4, "the other bag"}));
}

TEST(WordsGolden, WhatHarmsPlants) {
  Table table("words_harmful");
  for (const auto& ceiling : safeCeilings()) {
    if (ceiling.harmfulAboveMgPerL)
      table.add(std::string(nutrientKey(ceiling.nutrient)) + " " + ceiling.crop,
                words::harmfulText({ceiling.nutrient, 2 * *ceiling.harmfulAboveMgPerL,
                                    *ceiling.harmfulAboveMgPerL, ceiling.crop}));
  }
}

TEST(WordsGolden, ErrorsAndWhatWouldHalveThem) {
  Table table("words_errors");
  const std::vector<ShelfProduct> shelf{shippedProduct(*findInCatalogue("kno3"))};
  for (int source = 0; source <= static_cast<int>(ErrorSource::Water); ++source) {
    const ErrorPart part{static_cast<ErrorSource>(source), 0, 1.2};
    table.add(std::string(words::code(part.source)), words::errorPartText(part, shelf));
    table.add(std::string(words::code(part.source)) + " halved", words::halvingText(part, shelf));
  }
}

TEST(WordsGolden, Tanks) {
  Table table("words_tanks");
  for (int kind = 0; kind <= static_cast<int>(StockWarning::WaterFallsOut); ++kind) {
    StockNotice notice{static_cast<StockWarning>(kind), "gypsum", "B", 12.34, 137.2};
    table.add(std::string(words::code(notice.kind)), words::stockNoticeText(notice));
  }
  ReadingGap gap;
  gap.expected = Conductivity::fromMilliSiemensPerCm(2);
  gap.read = Conductivity::fromMilliSiemensPerCm(1.6);
  gap.water = Conductivity::fromMilliSiemensPerCm(0.4);
  gap.volume = Volume::fromLitres(100);
  const double values[] = {5, 1.4, 1.3, 125, 20, 0.75, 0.12, -10};
  for (int cause = 0; cause <= static_cast<int>(ReadingCause::Temperature); ++cause) {
    const auto it = static_cast<ReadingCause>(cause);
    table.add(std::string(words::code(it)), words::causeText({it, values[cause], 1, 1}, gap, {"A", "B"}));
  }
  for (int act = 0; act <= static_cast<int>(ReservoirAct::LastWater); ++act) {
    const auto it = static_cast<ReservoirAct>(act);
    table.add(numbered("act", act), std::string(words::code(it)));
  }
}

/// Each H-code by itself says something, or is one of those that are the warehouse's and the label's matter.
TEST(Cautions, EveryCodeOfEveryShippedProductIsSpokenOf) {
  const std::set<std::string> notAtTheBench{"H290"}; // corrosive to metals: storage
  std::size_t codes = 0;
  for (const auto& product : catalogue())
    for (const auto& code : product.hazardCodes) {
      const auto cautions = words::cautionsFor({{product.shortName, {code}, false, false, false}});
      const auto spoken = std::count_if(cautions.begin(), cautions.end(), [&](const auto& caution) {
        return caution.products == std::vector<std::string>{product.shortName};
      });
      EXPECT_EQ(spoken, notAtTheBench.contains(code) ? 0 : 1) << product.id << " " << code;
      ++codes;
    }
  EXPECT_GT(codes, 50u);
}

TEST(WordsGolden, CautionsOfEveryHazardOnTheShippedShelf) {
  std::map<std::string, std::set<std::string>> whose;
  for (const auto& product : catalogue()) {
    const auto shelf = shippedProduct(product);
    words::HazardFacts facts;
    facts.name = product.shortName;
    facts.hazardCodes = product.hazardCodes;
    facts.oxidiser = product.oxidiser;
    for (const auto& caution : words::cautionsFor({facts}))
      whose[caution.text].insert(product.id);
  }
  Table table("words_cautions");
  for (const auto& [caution, products] : whose) {
    std::string ids;
    for (const auto& id : products)
      ids += (ids.empty() ? "" : " ") + id;
    table.add(ids, caution);
  }
  table.add("acid", words::cautionsFor({{"acid", {}, false, true, false}}).front().text);
  table.add("base", words::cautionsFor({{"base", {}, false, false, true}}).front().text);
  table.add("always", words::generalCaution());
}
