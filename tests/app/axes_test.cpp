#include "paint/axes.h"
#include "paint/wrapped_label.h"

#include <gmock/gmock.h>

namespace butte::app {

using ::testing::DoubleNear;
using ::testing::ElementsAre;

TEST(Axes, ValuesGoToPixelsAndBack) {
  for (const auto& axis :
       {Axis{0, 14, 200, 20, false}, Axis{10, 1000, 30, 430, true}, Axis{-5, 5, 0, 100, false}}) {
    EXPECT_NEAR(axis.at(axis.least), axis.from, 1e-9);
    EXPECT_NEAR(axis.at(axis.most), axis.to, 1e-9);
    for (const double share : {0.1, 0.5, 0.93}) {
      const double pixel = axis.from + share * (axis.to - axis.from);
      EXPECT_NEAR(axis.at(axis.valueAt(pixel)), pixel, 1e-9);
    }
  }
  EXPECT_NEAR((Axis{10, 1000, 0, 200, true}).at(100), 100, 1e-9) << "a decade is a decade long";
}

TEST(Axes, MarksAreRound) {
  EXPECT_DOUBLE_EQ(roundStep(10, 5), 2);
  EXPECT_DOUBLE_EQ(roundStep(0.4, 5), 0.1);
  EXPECT_DOUBLE_EQ(roundStep(4300, 5), 1000);
  EXPECT_THAT(marksOf({0, 6, 0, 1}, 2), ElementsAre(0, 2, 4, 6));
  EXPECT_THAT(marksOf({0.05, 0.31, 0, 1}, 0.1),
              ElementsAre(DoubleNear(0.1, 1e-12), DoubleNear(0.2, 1e-12), DoubleNear(0.3, 1e-12)));
  EXPECT_EQ(decimalsOf(2), 0);
  EXPECT_EQ(decimalsOf(0.5), 1);
  EXPECT_EQ(decimalsOf(0.02), 2);
}

TEST(WrappedLabel, IsAsHighAsAPlainOneWhateverWasAskedBefore) {
  WrappedLabel label;
  QLabel plain;
  plain.setWordWrap(true);
  for (const auto* text :
       {"short", "a text that is long enough to be wrapped into several lines at a small width",
        "<b>rich</b> text<br>of two lines", ""}) {
    const auto format = *text == '<' ? Qt::RichText : Qt::PlainText;
    for (QLabel* one : {static_cast<QLabel*>(&label), &plain}) {
      one->setTextFormat(format);
      one->setText(text);
    }
    for (const int width : {60, 200, 60, 120, 400, 61, 62, 63, 64, 65, 66, 67, 68, 200})
      EXPECT_EQ(label.heightForWidth(width), plain.heightForWidth(width)) << text << " at " << width;
  }
  label.setTextFormat(Qt::PlainText);
  label.setText("a text that is long enough to be wrapped into several lines");
  plain.setText(label.text());
  auto font = plain.font();
  font.setPixelSize(31);
  label.setFont(font);
  plain.setFont(font);
  EXPECT_EQ(label.heightForWidth(100), plain.heightForWidth(100)) << "another font";
}

} // namespace butte::app
