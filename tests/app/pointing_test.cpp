// What answers to the pointer and the wheel: lanes, the picture of the batches, the drift of a source.
#include "window_fixture.h"

#include "stations/book/batch_picture.h"
#include "stations/water/drift_chart.h"
#include "support/painted_text.h"

#include <QHelpEvent>
#include <QToolTip>
#include <QWheelEvent>
#include <set>

using ::testing::HasSubstr;
using ::testing::Not;

namespace butte::app {

using core::Nutrient;

class PointingTest : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    window->resize(1280, 770);
    window->showStation(Station::Formula);
    lanes = window->findChild<ElementLanes*>();
    lanes->grab();
  }

  void point(QPoint at) {
    QMouseEvent move(QEvent::MouseMove, at, lanes->mapToGlobal(at), Qt::NoButton, Qt::NoButton, {});
    QApplication::sendEvent(lanes, &move);
  }
  QString explained(QPoint at) {
    QToolTip::hideText();
    QHelpEvent help(QEvent::ToolTip, at, lanes->mapToGlobal(at));
    QApplication::sendEvent(lanes, &help);
    return QToolTip::text();
  }

  ElementLanes* lanes = nullptr;
};

TEST_F(PointingTest, APartOfALaneLightsItsProductAndSaysWhatItBrings) {
  std::vector<std::string> lit;
  QObject::connect(lanes, &ElementLanes::lit, lanes, [&](const std::string& id) { lit.push_back(id); });
  const auto mark = lanes->targetMark(Nutrient::K);
  std::set<std::string> seen;
  QStringList sayings;
  for (int x = mark.x() - 240; x < mark.x(); x += 6) {
    point({x, mark.y()});
    if (!lit.empty() && !lit.back().empty()) seen.insert(lit.back());
    const auto text = explained({x, mark.y()});
    if (text.contains("brings")) sayings << text;
  }
  EXPECT_TRUE(seen.contains("kno3")) << "potassium comes from potassium nitrate, among others";
  ASSERT_FALSE(sayings.isEmpty());
  EXPECT_THAT(sayings.join('\n').toStdString(), HasSubstr("mg/L of potassium"));
  QEvent leave(QEvent::Leave);
  QApplication::sendEvent(lanes, &leave);
  EXPECT_EQ(lit.back(), "") << "nothing is lit once the pointer is gone";
}

TEST_F(PointingTest, TheFreeRoomOfALaneSaysWhereItsErrorComesFrom) {
  const auto mark = lanes->targetMark(Nutrient::K);
  QString words;
  for (int x = mark.x(); x < lanes->width() && !words.contains("19 of 20"); x += 8)
    words = explained({x, mark.y()});
  EXPECT_THAT(words.toStdString(), HasSubstr("in 19 of 20 mixes, from:"));
  EXPECT_THAT(words.toStdString(), HasSubstr("Halving the first leaves"));
}

TEST_F(PointingTest, MarkAndEdgeShowWhatADragWouldDo) {
  point(lanes->targetMark(Nutrient::K));
  EXPECT_EQ(lanes->cursor().shape(), Qt::SizeHorCursor);
  point(lanes->bandEdge(Nutrient::K));
  EXPECT_EQ(lanes->cursor().shape(), Qt::SplitHCursor);
  point({3, 3});
  EXPECT_EQ(lanes->cursor().shape(), Qt::ArrowCursor);
}

TEST_F(PointingTest, TheBatchesAreZoomedAndMovedByWheelKeysAndHand) {
  ASSERT_FALSE(window->desk().openSample());
  QApplication::processEvents();
  window->showStation(Station::Book);
  auto* picture = window->findChild<BatchPicture*>();
  ASSERT_TRUE(picture);
  picture->grab();
  const auto stretch = [&] { return std::pair(picture->from(), picture->to()); };
  const auto width = [&] { return stretch().second - stretch().first; };
  const auto start = stretch();
  const QPointF middle(picture->width() / 2.0, picture->height() / 2.0);
  const auto wheel = [&](int by) {
    QWheelEvent event(middle, picture->mapToGlobal(middle), {}, {0, by}, Qt::NoButton, {}, Qt::NoScrollPhase,
                      false);
    QApplication::sendEvent(picture, &event);
  };
  wheel(120);
  wheel(120);
  EXPECT_NEAR(static_cast<double>(width()) / static_cast<double>(start.second - start.first), 0.64, 0.01);
  EXPECT_GT(stretch().first, start.first);
  EXPECT_LT(stretch().second, start.second);
  wheel(-120);
  EXPECT_NEAR(static_cast<double>(width()) / static_cast<double>(start.second - start.first), 0.8, 0.01);
  const auto near = stretch();
  picture->setFocus();
  picture->grab(); // with the ring of the focus
  QTest::keyClick(picture, Qt::Key_Left);
  EXPECT_NEAR(static_cast<double>(near.first - stretch().first) / static_cast<double>(width()), 0.125, 0.01)
      << "an eighth of what is seen";
  QTest::keyClick(picture, Qt::Key_Right);
  EXPECT_EQ(stretch(), near);
  QTest::keyClick(picture, Qt::Key_Minus);
  EXPECT_GT(width(), near.second - near.first);
  QTest::keyClick(picture, Qt::Key_Home);
  EXPECT_EQ(stretch(), start) << "Home shows all";
  QTest::mousePress(picture, Qt::LeftButton, {}, middle.toPoint());
  QMouseEvent drag(QEvent::MouseMove, middle + QPointF(-90, 0),
                   picture->mapToGlobal(middle + QPointF(-90, 0)), Qt::NoButton, Qt::LeftButton, {});
  QApplication::sendEvent(picture, &drag);
  QTest::mouseRelease(picture, Qt::LeftButton, {}, middle.toPoint() + QPoint(-90, 0));
  EXPECT_GT(stretch().first, start.first) << "drawn to the left: later days come in";
  EXPECT_EQ(width(), start.second - start.first);
}

TEST_F(PointingTest, AMarkUnderThePointerIsExplained) {
  ASSERT_FALSE(window->desk().openSample());
  QApplication::processEvents();
  window->showStation(Station::Book);
  auto* picture = window->findChild<BatchPicture*>();
  ASSERT_GT(picture->markCount(), 0);
  QStringList told;
  QObject::connect(picture, &BatchPicture::explained, picture, [&](const QString& words) { told << words; });
  for (int mark = 0; mark < picture->markCount(); ++mark) {
    const auto at = picture->placeOf(mark);
    QMouseEvent move(QEvent::MouseMove, at, picture->mapToGlobal(at), Qt::NoButton, Qt::NoButton, {});
    QApplication::sendEvent(picture, &move);
    picture->grab();
  }
  ASSERT_FALSE(told.isEmpty());
  EXPECT_THAT(told.join('\n').toStdString(), HasSubstr("%"));
}

TEST(DriftChart, DrawsALineForEachFigureFromTheFirstToTheLatest) {
  DriftChart chart;
  chart.resize(500, 90);
  core::Water spring, autumn;
  spring.conductivityMsPerCm = 0.52;
  spring.alkalinityMeqPerL = 3;
  autumn.conductivityMsPerCm = 0.71;
  autumn.alkalinityMeqPerL = 4.5;
  chart.show({{"2026-03-02", spring}});
  EXPECT_TRUE(test::PaintedText::of(chart).isEmpty()) << "one report is no drift";
  chart.show({{"2026-03-02", spring}, {"2026-09-14", autumn}});
  const auto texts = test::PaintedText::of(chart).join('\n').toStdString();
  EXPECT_THAT(texts, HasSubstr("0.52 → 0.71 mS/cm"));
  EXPECT_THAT(texts, HasSubstr("150 → 225 mg/L")) << "three and four and a half meq/L as calcium carbonate";
  EXPECT_THAT(texts, Not(HasSubstr("\n0 → 0"))) << "what no report measured is not none";
  EXPECT_THAT(chart.description().toStdString(), HasSubstr("0.71"));
}

} // namespace butte::app
