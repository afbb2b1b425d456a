// What is on the screen after a key is what a whole repaint would show: nothing stale is left by what
// repaints only what changed.
#include "edits/formula_edits.h"
#include "edits/shelf_edits.h"
#include "edits/stock_edits.h"
#include "edits/target_edits.h"
#include "paint/theme.h"
#include "stations/shelf/shelf_page.h"
#include "stations/tank/tank_page.h"
#include "window/stations.h"
#include "window_fixture.h"

#include <QScreen>

namespace butte::app {

TEST(Faces, KeepSizeAndWeight) {
  for (const int pixels : {11, 12, 13, 14, 17}) {
    for (const bool bold : {true, false}) {
      EXPECT_EQ(faceOf(pixels, bold).pixelSize(), pixels);
      EXPECT_EQ(faceOf(pixels, bold).bold(), bold) << pixels;
    }
  }
}

class RepaintTest : public WindowTest {
protected:
  void SetUp() override {
    QApplication::setCursorFlashTime(0);
    WindowTest::SetUp();
    window->resize(1280, 770);
    QApplication::processEvents();
  }
  void TearDown() override { applyTheme(false); }

  QImage onScreen() {
    QApplication::processEvents();
    // What is worked out behind the window comes by itself.
    EXPECT_TRUE(QTest::qWaitFor(
        [&] { return window->tankPage().isSettled() && window->shelfPage().isSettled(); }, 20000));
    for (int i = 0; i < 4; ++i) // a layout may ask for another one
      QApplication::processEvents();
    return window->screen()->grabWindow(window->winId()).toImage();
  }

  void expectNothingStale(const std::string& after) {
    ASSERT_FALSE(book().flush()); // else the time of keeping changes between the two looks
    const auto kept = onScreen();
    ASSERT_GT(kept.width(), 1000);
    for (auto* widget : window->findChildren<QWidget*>())
      widget->update();
    window->update();
    const auto whole = onScreen();
    if (kept == whole) return;
    QRect off;
    for (int y = 0; y < whole.height(); ++y)
      for (int x = 0; x < whole.width(); ++x)
        if (kept.pixel(x, y) != whole.pixel(x, y)) off |= QRect(x, y, 1, 1);
    const auto* widget = window->childAt(off.center());
    ADD_FAILURE() << after << ": stale at " << off.x() << "," << off.y() << " " << off.width() << " x "
                  << off.height() << " (" << (widget ? widget->metaObject()->className() : "window") << " "
                  << (widget ? widget->objectName().toStdString() : "") << ")";
  }

  void work(const std::string& where) {
    const auto settle = [&](const char* deed) { expectNothingStale(where + ", " + deed); };
    onScreen();
    TargetEdits(editor()).setFigure(core::Nutrient::K, {"215", "mg/L"});
    settle("potassium 215");
    TargetEdits(editor()).setFigure(core::Nutrient::K, {"216", "mg/L"});
    settle("potassium 216");
    TargetEdits(editor()).setTolerance(core::Nutrient::Ca, "20");
    settle("a wider band of calcium");
    ShelfEdits(editor()).hold("epsom", {"150", "g"}, false);
    settle("magnesium sulfate held");
    StockEdits(editor()).setStrength("600");
    settle("strength 600");
    FormulaEdits(editor()).setBatch({"333", "L"});
    settle("another batch");
    editor().undo();
    settle("taken back");
    window->units().setVolume(VolumeShown::UsGallons);
    settle("gallons");
    window->units().setVolume(VolumeShown::Litres);
    trigger("darkTheme");
    settle("dark");
    trigger("darkTheme");
    settle("light");
    while (editor().canUndo())
      editor().undo();
    settle("all taken back");
  }
};

TEST_F(RepaintTest, AStationShowsAfterAKeyWhatAWholeRepaintWould) {
  for (const auto& station : stations) {
    window->showStation(station.station);
    work("station " + std::to_string(static_cast<int>(station.station)));
  }
}

} // namespace butte::app
