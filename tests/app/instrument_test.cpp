/// The Formula station under a hand that tries everything: whatever is done, the picture shows what follows
/// from what is given, and the way back is whole.
#include "formula/formula_answer.h"
#include "support/told.h"
#include "window_fixture.h"
#include "words.h"

#include <QAbstractButton>
#include <QComboBox>
#include <random>

namespace butte::app {

using core::Nutrient;
using ::testing::HasSubstr;
using ::testing::Not;

class InstrumentTest : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    window->showStation(Station::Formula);
    lanes = window->findChild<ElementLanes*>();
    lanes->grab(); // lays the lanes out
  }

  std::string changeLine() { return find<QLabel>("changeLine")->text().toStdString(); }

  const core::SolveRequest& request() { return editor().document().given.request; }

  void drag(QPoint from, int by) {
    QTest::mousePress(lanes, Qt::LeftButton, {}, from);
    QTest::mouseMove(lanes, from + QPoint(by / 2, 0));
    QTest::mouseMove(lanes, from + QPoint(by, 0));
    QTest::mouseRelease(lanes, Qt::LeftButton, {}, from + QPoint(by, 0));
    QApplication::processEvents();
    lanes->grab();
  }

  /// Every lane says what the formula worked out anew gives, and every weight field what is weighed.
  void expectThePictureFollows() {
    const auto computed = core::compute(editor().document().given);
    ASSERT_TRUE(computed);
    const auto& anew = *computed;
    ASSERT_EQ(anew.solution.grams.size(), editor().answer().solution.grams.size());
    for (std::size_t j = 0; j < anew.solution.grams.size(); ++j)
      EXPECT_EQ(anew.solution.grams[j].grams(), editor().answer().solution.grams[j].grams())
          << request().shelf[j].id;
    for (const auto& row : request().rows) {
      const double has = anew.feed.milligramsPerLitre.of(row.nutrient);
      const auto said = lane(row.nutrient);
      if (said.isEmpty()) continue; // the sum of nitrogen stands in its forms' lanes
      EXPECT_THAT(said.toStdString(), HasSubstr(" of " + localFigure(row.milligramsPerLitre).toStdString()));
      EXPECT_THAT(said.toStdString(), ::testing::StartsWith(words::nutrientSymbol(row.nutrient) + " " +
                                                            localFigure(has).toStdString()));
      EXPECT_EQ(row.contains(has), said.endsWith("in band")) << said.toStdString();
    }
  }

  /// One thing that a hand can do at this station, chosen by lot. What cannot be done just now does nothing.
  void doAnything(std::mt19937& random) {
    static const std::vector<Nutrient> elements{Nutrient::NNitrate, Nutrient::P,  Nutrient::K,
                                                Nutrient::Ca,       Nutrient::Mg, Nutrient::S};
    static const std::vector<QString> products{"can_double", "kno3", "mkp", "epsom", "sop", "mgn6", "an"};
    const auto pick = [&](const auto& list) { return list[random() % list.size()]; };
    const auto element = pick(elements);
    const auto product = pick(products);
    switch (random() % 8) {
    case 0:
      return drag(lanes->targetMark(element), static_cast<int>(random() % 61) - 30);
    case 1:
      return drag(lanes->bandEdge(element), static_cast<int>(random() % 31) - 10);
    case 2:
      window->showStation(Station::Target);
      type("target_" + QString::fromStdString(std::string(core::nutrientKey(element))),
           QString::number(20 + random() % 200));
      return window->showStation(Station::Formula);
    case 3:
      return click("on_" + product);
    case 4:
      return click("hold_" + product);
    case 5:
      if (find<QLineEdit>("weight_" + product)->isEnabled())
        type("weight_" + product, QString::number(10 + random() % 400));
      return;
    case 6:
      lanes->setFocus();
      return QTest::keyClick(lanes, random() % 2 ? Qt::Key_Plus : Qt::Key_Minus);
    default:
      lanes->setFocus();
      return QTest::keyClick(lanes, pick(std::vector{Qt::Key_Up, Qt::Key_Down, Qt::Key_Left, Qt::Key_Right}));
    }
  }

  ElementLanes* lanes = nullptr;
};

TEST_F(InstrumentTest, WhateverAHandDoesThePictureFollowsAndTheWayBackIsWhole) {
  std::mt19937 random(41);
  const auto start = editor().json();
  for (int i = 0; i < 60; ++i) {
    doAnything(random);
    QApplication::processEvents();
    if (i % 6 == 0) expectThePictureFollows();
    if (HasFatalFailure() || HasNonfatalFailure()) FAIL() << "after " << i;
  }
  const auto end = editor().json();
  ASSERT_NE(start, end);
  int steps = 0;
  while (editor().canUndo() && editor().json() != start && steps < 200) {
    press(Qt::Key_Z, Qt::ControlModifier);
    ++steps;
  }
  EXPECT_EQ(editor().json(), start);
  EXPECT_GT(steps, 20);
  expectThePictureFollows();
  for (int i = 0; i < steps; ++i)
    press(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_EQ(editor().json(), end);
  expectThePictureFollows();
  // The book kept it all: after a night it stands as it was left.
  reopenWindow();
  EXPECT_EQ(editor().json(), end);
}

TEST_F(InstrumentTest, TheChangeLineSaysWhatOneKeyDid) {
  EXPECT_THAT(changeLine(), Not(HasSubstr("Changed")));
  const double before = editor().answer().feed.milligramsPerLitre.of(Nutrient::K);
  window->showStation(Station::Target);
  type("target_K", "9");
  window->showStation(Station::Formula);
  const double fell = before - editor().answer().feed.milligramsPerLitre.of(Nutrient::K);
  ASSERT_GT(fell, 20);
  EXPECT_THAT(changeLine(), HasSubstr("Changed"));
  EXPECT_THAT(changeLine(), HasSubstr("K −" + localFigure(fell).toStdString() + " mg/L"));
}

TEST_F(InstrumentTest, ANewPriceShowsInTheCostAlone) {
  const auto before = editor().answer();
  const int index = editor().indexOf("kno3");
  ASSERT_FALSE(editor().set(told("price"), "/shelf/" + std::to_string(index) + "/price_per_kg", "2.70"));
  const auto& after = editor().answer();
  const double perCubicMetre = 1000 / request().volume.litres() * 1.35 *
                               after.solution.grams[static_cast<std::size_t>(index)].kilograms();
  EXPECT_NEAR((*after.feed.cost - *before.feed.cost) * 1000 / request().volume.litres(), perCubicMetre, 1e-9);
  EXPECT_THAT(changeLine(), HasSubstr("cost +" + localFigure(perCubicMetre).toStdString() + " per m³"));
  for (std::size_t j = 0; j < after.solution.grams.size(); ++j)
    EXPECT_EQ(after.solution.grams[j].grams(), before.solution.grams[j].grams());
}

} // namespace butte::app
