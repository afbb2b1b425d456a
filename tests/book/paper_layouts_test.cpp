#include "book/paper_layouts.h"
#include "book_fixture.h"
#include "support/told.h"

namespace butte::book {
namespace {

using reading::TableMapping;

class PaperLayoutsTest : public BookTest {};

reading::ForeignTable tableOf(const std::string& text) {
  return *reading::readForeignTable(text);
}

TEST_F(PaperLayoutsTest, AMappingIsKnownByTheWholeHeader) {
  auto book = make();
  const auto table = tableOf("When,EC in,EC out\n3/4/2026,1.8,2.1\n");
  EXPECT_FALSE(knownMapping(book->store(), table));
  auto mapping = reading::proposedMapping(table, reading::TableOf::Readings);
  mapping.columns = {{"time", "", 1, true}, {"", "", 1, true}, {"ec", "uS/cm", 1, true}};
  mapping.dates = reading::DateOrder::MonthFirst;
  mapping.mark = reading::DecimalMark::Point;
  mapping.nameForAll = "Drain";
  const auto ref = book->create(Kind::PaperLayout, layoutBody("drain.csv", table, mapping), told("layout"));
  ASSERT_TRUE(static_cast<bool>(ref));
  const auto known = knownMapping(book->store(), tableOf("when,EC IN,EC out\n4/4/2026,1.7,2.0\n"));
  ASSERT_TRUE(known) << "letters large or small do not matter";
  EXPECT_EQ(known->answer, mapping);
  EXPECT_FALSE(knownMapping(book->store(), tableOf("When,EC in\n4/4/2026,1.7\n")));
  ASSERT_FALSE(book->moveToBin(*ref, "drain"));
  EXPECT_FALSE(knownMapping(book->store(), table)) << "in the bin";
}

TEST_F(PaperLayoutsTest, OfReportsTheLikeliestLayoutCounts) {
  auto book = make();
  const auto keep = [&](const std::vector<std::string>& names, const std::string& key) {
    const reading::RowAnswer answer{"odd", "mg/L", reading::WhyUnplaced::UnknownName, 0, {}, key, false};
    ASSERT_TRUE(static_cast<bool>(
        book->create(Kind::PaperLayout, layoutBody("sheet", names, {answer}), told("layout"))));
  };
  keep({"a", "b", "c", "d", "odd"}, "Ca");
  keep({"a", "b", "c", "e", "odd"}, "Mg");
  const auto layouts = reportLayouts(book->store());
  const auto* known = likeliestOf(layouts, {"a", "b", "c", "e", "odd"});
  ASSERT_TRUE(known);
  EXPECT_EQ(known->answer.answers.front().key, "Mg");
  EXPECT_FALSE(likeliestOf(layouts, {"x", "y", "odd"}));
}

TEST_F(PaperLayoutsTest, ABrokenLayoutIsRefusedAndNamesItsPlace) {
  const auto said = [](const Json& body) {
    const auto trouble = checkLayout(body);
    return trouble ? trouble->where : std::string("fine");
  };
  EXPECT_EQ(said({{"name", "n"}, {"paper", "wall"}, {"names", Json::array()}}), "paper");
  EXPECT_EQ(said({{"name", "n"}, {"paper", "table"}, {"names", Json::array({1})}}), "names");
  EXPECT_EQ(said({{"name", "n"},
                  {"paper", "water_report"},
                  {"names", Json::array({"a"})},
                  {"answers", Json::array({{{"name", "a"}, {"why", "mood"}}})}}),
            "answers[0].why");
  EXPECT_EQ(said({{"name", "n"},
                  {"paper", "table"},
                  {"names", Json::array({"a"})},
                  {"table", "readings"},
                  {"dates", "unknown"},
                  {"mark", "point"},
                  {"columns", Json::array({{{"field", "ec"}, {"per", 0}}})}}),
            "columns[0].per");
}

} // namespace
} // namespace butte::book
