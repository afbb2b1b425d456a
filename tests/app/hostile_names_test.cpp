// Text is text: what is typed or comes in with somebody's file is never taken for marks, and nothing is
// loaded for it. (A product named <img src=/dev/zero> once ended the program at every start.)
#include "window_fixture.h"

#include "paint/closed_text.h"
#include "print/sheet_text.h"
#include "print/tank_labels.h"
#include "window/stations.h"
#include "words.h"

#include <QAbstractButton>
#include <QTextBrowser>

namespace butte::app {

using ::testing::HasSubstr;
using ::testing::Not;

constexpr auto hostile = "<img src=/dev/zero><b>Bold</b><a href='file:///etc/passwd'>x</a>";

/// Every name of the formula is hostile.
exchange::Json hostileFormula() {
  auto json = *readFormulaFile(":/demo/ormsey.json");
  json["name"] = json["water"]["name"] = json["target"]["name"] = json["crop"] = hostile;
  for (auto& part : json["water"].contains("parts") ? json["water"]["parts"] : exchange::Json::array())
    part["name"] = hostile;
  for (auto& tank : json["stock"]["tanks"])
    tank["name"] = hostile;
  for (auto& scale : json["scales"])
    scale["name"] = hostile;
  for (auto& product : json["shelf"])
    if (!product.contains("catalogue"))
      product["name"] = hostile, product["on"] = true, product["code"] = "<b>";
  return json;
}

class HostileNamesTest : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    window->resize(1280, 770);
  }

  /// All labels that the window has now, seen or not.
  void expectNoLabelGuesses(const std::string& where) {
    for (const auto* label : window->findChildren<QLabel*>()) {
      EXPECT_NE(label->textFormat(), Qt::AutoText)
          << where << ": a label is left to guess: " << label->text().toStdString();
      if (label->textFormat() != Qt::RichText) continue;
      EXPECT_THAT(label->text().toStdString(), Not(HasSubstr("<img")))
          << where << ": " << label->objectName().toStdString();
    }
    for (auto* view : window->findChildren<QTextBrowser*>()) {
      EXPECT_TRUE(dynamic_cast<ClosedTextView*>(view)) << where << ": a view that could load what it shows";
      EXPECT_THAT(view->toHtml().toStdString(), Not(HasSubstr("<img"))) << where;
    }
  }

  void walk() {
    for (const auto& station : stations) {
      window->showStation(station.station);
      QApplication::processEvents();
      expectNoLabelGuesses("station " + std::to_string(static_cast<int>(station.station)));
      if (station.station != Station::Stocks && station.station != Station::Book) continue;
      for (auto* tab : window->findChildren<QAbstractButton*>()) {
        if (!tab->isVisible() || !tab->isCheckable() || tab->objectName().startsWith("hold")) continue;
        QTest::mouseClick(tab, Qt::LeftButton);
        QApplication::processEvents();
        expectNoLabelGuesses(tab->text().toStdString());
      }
    }
  }
};

TEST_F(HostileNamesTest, NamesAreShownAsTheyStandAtEveryStation) {
  const auto refused = window->desk().addFormula(hostileFormula(), told("hostile"));
  ASSERT_FALSE(refused) << words::problemLine(*refused);
  EXPECT_EQ(editor().document().name, hostile);
  walk();
  const auto paper = benchSheetHtml(editor(), window->units(), "29 November 2026") +
                     tankLabels(editor(), window->units(), "29 November 2026").join("");
  EXPECT_THAT(paper.toStdString(), Not(HasSubstr("<img")));
  EXPECT_THAT(paper.toStdString(), HasSubstr("&lt;img")) << "but there they are";
}

TEST_F(HostileNamesTest, AStoredSheetOpensNothingOutsideItself) {
  ClosedTextView view;
  EXPECT_TRUE(
      view.loadResource(QTextDocument::ImageResource, QUrl("file:///dev/zero")).toByteArray().isEmpty());
  EXPECT_FALSE(view.openLinks());
  view.setHtml("<p>before</p><img src='file:///dev/zero'><p>after</p>");
  view.resize(300, 200);
  view.show();
  QApplication::processEvents();
  EXPECT_THAT(view.toPlainText().toStdString(), HasSubstr("after"));
}

TEST_F(HostileNamesTest, OurOwnMarksAreStillMarks) {
  for (const auto& station : stations) {
    window->showStation(station.station);
    QApplication::processEvents();
    for (const auto* label : window->findChildren<QLabel*>()) {
      if (!label->isVisible() || label->textFormat() != Qt::PlainText) continue;
      EXPECT_THAT(label->text().toStdString(),
                  Not(::testing::ContainsRegex("<(b|br|span|i|sub|sup|p|table|tr)[ >]")))
          << label->objectName().toStdString();
    }
  }
}

} // namespace butte::app
