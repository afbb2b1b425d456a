#include "paint/theme.h"
#include "window_fixture.h"

#include <QComboBox>
#include <QPushButton>

namespace butte::app {
namespace {

/// The commonest colour of a widget as it is painted.
QColor groundOf(QWidget& widget) {
  const auto picture = widget.grab().toImage();
  std::map<QRgb, int> counts;
  for (int y = 0; y < picture.height(); ++y)
    for (int x = 0; x < picture.width(); ++x)
      ++counts[picture.pixel(x, y)];
  return QColor(std::max_element(counts.begin(), counts.end(), [](const auto& a, const auto& b) {
                  return a.second < b.second;
                })->first);
}

class ThemeTest : public WindowTest {
protected:
  void TearDown() override { applyTheme(false); }
};

TEST_F(ThemeTest, DarkReachesFieldsListsButtonsAndSoftLabelsAtOnce) {
  auto* field = find<QLineEdit>("batch");
  auto* box = find<QComboBox>("aimWay");
  auto* button = find<QPushButton>("ownProduct");
  auto* soft = find<QLabel>("solveState");
  EXPECT_EQ(groundOf(*field), QColor("#ffffff"));
  trigger("darkTheme");
  QApplication::processEvents();
  EXPECT_TRUE(isDark());
  for (auto* widget : std::initializer_list<QWidget*>{field, box, button})
    EXPECT_EQ(groundOf(*widget), theme().card) << widget->objectName().toStdString();
  EXPECT_EQ(soft->palette().color(QPalette::WindowText), theme().inkSoft);
  EXPECT_EQ(window->palette().color(QPalette::Window), theme().page);
  trigger("darkTheme");
  EXPECT_EQ(groundOf(*field), QColor("#ffffff"));
}

TEST_F(ThemeTest, TheMainButtonIsFilledAndItsTextIsReadable) {
  window->showStation(Station::Bench);
  auto* button = find<QPushButton>("sheetPdf");
  for (const bool dark : {false, true}) {
    if (dark) trigger("darkTheme");
    QApplication::processEvents();
    EXPECT_EQ(groundOf(*button), theme().accent);
    const auto picture = button->grab().toImage();
    int ink = 0;
    for (int y = 0; y < picture.height(); ++y)
      for (int x = 0; x < picture.width(); ++x)
        ink += picture.pixelColor(x, y) == theme().accentInk;
    EXPECT_GT(ink, 40) << "letters in the ink that belongs on that ground";
  }
}

TEST_F(ThemeTest, AFieldWithAWrongTextIsSeenFromAfar) {
  auto* field = find<NumberField>("batch");
  type("batch", "0");
  EXPECT_TRUE(field->isWrong());
  EXPECT_EQ(groundOf(*field), theme().redFill);
  type("batch", "1000");
  EXPECT_EQ(groundOf(*field), theme().card);
}

TEST_F(ThemeTest, StationsFollowOneList) {
  for (const auto& info : stations) {
    window->showStation(info.station);
    EXPECT_EQ(window->station(), info.station);
    auto* card = find<QAbstractButton>(QString("station%1").arg(static_cast<int>(info.station) + 1));
    EXPECT_TRUE(card->isChecked()) << info.key;
    EXPECT_THAT(card->accessibleName().toStdString(), ::testing::StartsWith(info.name));
  }
}

} // namespace
} // namespace butte::app
