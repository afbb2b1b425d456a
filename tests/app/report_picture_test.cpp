// A report that comes as a picture or a PDF, read behind the window and looked at beside its picture.
#include "papers/paper_view.h"
#include "scan/rendered_paper.h"
#include "stations/water/reading_rows.h"
#include "window_fixture.h"

#include <QClipboard>
#include <QDeadlineTimer>
#include <QPainter>
#include <QPdfWriter>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QTextCursor>

namespace butte::app {
namespace {

using ::testing::HasSubstr;

constexpr auto sheet =
    "Parameter\tResult\tUnit\npH\t7.4\t\nConductivity\t480\tuS/cm\nCalcium\t61.2\tmg/l\n"
    "Magnesium\t9.5\tmg/l\nSodium\t17.0\tmg/l\nPotassium\t2.2\tmg/l\nChloride\t31.0\tmg/l\n"
    "Sulphate\t44.0\tmg/l\nNitrate as N\t2.7\tmg/l\nBicarbonate\t159\tmg/l\nBoron\t0.05\tmg/l\n";

class ReportPictureTest : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    // The clipboard is one for all tests.
    QApplication::clipboard()->clear();
  }
  QString pictureFile(const test::Befallen& what) {
    const auto path = folder.filePath("sheet.png");
    test::afterAll(test::printed(sheet, "B612", 200), what).save(path);
    return path;
  }
  /// Until the paper was read, as one would wait for it.
  void waitRead() {
    QDeadlineTimer patience(60000);
    while (!find<QWidget>("paperView")->isVisible() && !patience.hasExpired())
      QTest::qWait(20);
    ASSERT_TRUE(find<QWidget>("paperView")->isVisible());
  }
  /// How many lines of dark dots stand below one another between two uprights.
  static int linesOfInk(const QImage& picture, int left, int right) {
    int lines = 0;
    bool inLine = false;
    for (int y = 0; y < picture.height(); ++y) {
      bool dark = false;
      for (int x = left; x < right; ++x)
        dark |= qGray(picture.pixel(x, y)) < 130;
      lines += dark && !inLine;
      inLine = dark;
    }
    return lines;
  }
  std::string report(const QString& name) { return find<QLabel>(name)->text().toStdString(); }
};

TEST_F(ReportPictureTest, ALeaningPhotoIsReadAndTakenAfterALook) {
  window->books().openAnything(pictureFile({2.0, 0.3, true, 60, 2}));
  EXPECT_EQ(window->station(), Station::Water);
  EXPECT_TRUE(find<QWidget>("readingProgress")->isVisible());
  waitRead();
  EXPECT_THAT(report("reportFound"), HasSubstr("figures read"));
  EXPECT_THAT(report("reportBalance"), HasSubstr("it balances"));
  // Every line that was read has the paper beside it: ink in the column of strips, line below line.
  auto* rows = find<ReadingRows>("readingRows");
  const auto shown = rows->grab().toImage();
  EXPECT_GE(linesOfInk(shown, shown.width() - 155, shown.width() - 60) + rows->open(), 11);
  const auto before = editor().answer().water.netAlkalinityMeqPerL;
  click("takeReport");
  EXPECT_NE(editor().answer().water.netAlkalinityMeqPerL, before);
  editor().undo();
  EXPECT_EQ(editor().answer().water.netAlkalinityMeqPerL, before);
}

TEST_F(ReportPictureTest, ALongTextIsReadBehindTheWindowAndNotTakenHalf) {
  window->showStation(Station::Water);
  click("pasteReport");
  QString text = "Calcium 91 mg/l\n";
  for (int i = 0; i < 1400; ++i)
    text += "a line of words\n";
  auto* field = find<QPlainTextEdit>("reportText");
  field->setPlainText(text);
  EXPECT_FALSE(find<QPushButton>("takeReport")->isEnabled());
  EXPECT_EQ(report("reportFound"), "Reading…");
  field->moveCursor(QTextCursor::End);
  QTest::keyClicks(field, "Sodium 20 mg/l"); // goes on while it is read: the newest counts
  QDeadlineTimer patience(60000);
  while (!find<QPushButton>("takeReport")->isEnabled() && !patience.hasExpired())
    QTest::qWait(5);
  EXPECT_EQ(report("reportFound"), "2 figures read.");
}

TEST_F(ReportPictureTest, APdfIsReadByItsTextWithoutADoubt) {
  const auto path = folder.filePath("sheet.pdf");
  {
    QPdfWriter writer(path);
    writer.setResolution(100);
    QPainter painter(&writer);
    int y = 60;
    for (const auto& line : QString(sheet).split('\n')) {
      int x = 60;
      for (const auto& cell : line.split('\t')) {
        painter.drawText(x, y, cell);
        x += 200;
      }
      y += 22;
    }
  }
  window->books().openAnything(path);
  waitRead();
  EXPECT_EQ(report("reportFound"), "11 figures read.");
}

TEST_F(ReportPictureTest, WhatIsNoPaperIsSaidAndTheReadingCanBeStopped) {
  window->showStation(Station::Water);
  click("pasteReport");
  QFile broken(folder.filePath("broken.png"));
  ASSERT_TRUE(broken.open(QIODevice::WriteOnly));
  broken.write("\x89PNG\r\n\x1a\nthis is none");
  broken.close();
  window->prompts().fileToOpen = [&](const QString&, const QString&, const QString&) {
    return broken.fileName();
  };
  click("openReport"); // no picture: its bytes are shown as text, and nothing is understood
  EXPECT_THAT(report("reportFound"), HasSubstr("Nothing recognised"));
  const auto path = pictureFile({});
  window->prompts().fileToOpen = [&](const QString&, const QString&, const QString&) { return path; };
  click("openReport");
  ASSERT_TRUE(find<QWidget>("stopReading")->isVisible());
  click("stopReading");
  EXPECT_TRUE(find<QWidget>("reportText")->isVisible());
  QTest::qWait(300);
  EXPECT_TRUE(find<QWidget>("reportText")->isVisible()) << "what was stopped does not come after all";
}

TEST_F(ReportPictureTest, WhileAPaperIsReadNothingOfTheOneBeforeCanBeTaken) {
  window->showStation(Station::Water);
  click("pasteReport");
  find<QPlainTextEdit>("reportText")->setPlainText("Calcium 91 mg/l\nSodium 20 mg/l\n");
  EXPECT_THAT(report("reportFound"), HasSubstr("2 figures read"));
  const auto before = editor().answer().water.netAlkalinityMeqPerL;
  window->books().openAnything(pictureFile({}));
  EXPECT_THAT(report("reportFound"), HasSubstr("Nothing recognised"));
  click("takeReport");
  EXPECT_EQ(editor().answer().water.netAlkalinityMeqPerL, before);
  click("stopReading");
  EXPECT_THAT(report("reportFound"), HasSubstr("2 figures read")) << "the text is there again";
  QTest::qWait(300);
  EXPECT_TRUE(find<QWidget>("reportText")->isVisible());
}

TEST_F(ReportPictureTest, APictureOnTheClipboardIsReadWhenTheReportIsAskedFor) {
  QApplication::clipboard()->setImage(test::printed(sheet, "B612", 200));
  window->showStation(Station::Water);
  click("pasteReport");
  waitRead();
  EXPECT_THAT(report("reportFound"), HasSubstr("figures read"));
}

TEST_F(ReportPictureTest, ALabelsPhotoFillsTheFieldsToBeLookedAt) {
  const auto path = folder.filePath("bag.png");
  test::afterAll(test::printed("GUARANTEED ANALYSIS\nTotal Nitrogen (N)\t15.5%\n14.4% Nitrate Nitrogen\n"
                               "1.1% Ammoniacal Nitrogen\nCalcium (Ca)\t19.0%\n",
                               "B612", 220),
                 {1.0, 0.2, false, 70, 1})
      .save(path);
  click("ownProduct");
  window->prompts().fileToOpen = [&](const QString&, const QString&, const QString&) { return path; };
  click("openLabel");
  QDeadlineTimer patience(60000);
  while (!find<QWidget>("labelPicture")->isVisible() && !patience.hasExpired())
    QTest::qWait(20);
  QTest::qWait(300);
  EXPECT_EQ(find("label_Ca")->text(), "19");
  EXPECT_EQ(find("label_N_NO3")->text(), "14.4");
  EXPECT_THAT(report("labelRead"), HasSubstr("check them"));
}

} // namespace
} // namespace butte::app
