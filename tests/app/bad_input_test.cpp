#include "window_fixture.h"

#include "document/formula_file.h"
#include "formula_json.h"

#include <QDir>

using ::testing::HasSubstr;

namespace butte::app {

TEST_F(WindowTest, BadNumbersTurnTheFieldRedAndTheLastGoodOneStays) {
  window->showStation(Station::Target);
  // Whatever the order of its keys: what was taken out and put back stands at the end.
  const auto content = [&] { return nlohmann::json::parse(editor().json().dump()); };
  const auto before = content();
  struct Case {
    QString text;
    const char* says;
  };
  for (const auto& bad :
       {Case{"abc", "not a number"}, Case{"1.2.3", "not a number"}, Case{"-5", "out of range"},
        Case{"99999999", "out of range"}, Case{QString(200, '9'), "out of range"},
        Case{"12 g", "not a number in a unit known here"}}) {
    type("target_K", bad.text);
    auto* field = find("target_K");
    EXPECT_TRUE(field->isWrong()) << bad.text.toStdString();
    EXPECT_THAT(field->message().toStdString(), HasSubstr(bad.says));
    EXPECT_THAT(field->message().toStdString(), HasSubstr("potassium"));
    EXPECT_EQ(field->text(), bad.text); // nothing typed is lost
    EXPECT_EQ(content(), before) << "what is red counts for nothing, whatever its beginning said in passing";
    QTest::keyClick(field, Qt::Key_Escape);
    EXPECT_FALSE(field->isWrong());
  }
}

TEST_F(WindowTest, AnyUnitOfTheQuantityMayStandBehindTheNumber) {
  const auto batchLitres = [&] { return editor().document().given.request.volume.litres(); };
  window->showStation(Station::Formula);
  type("batch", "500 mL");
  EXPECT_NEAR(batchLitres(), 0.5, 1e-9);
  EXPECT_EQ(find("batch")->text(), "500 mL") << "as it was typed, while one types";
  press(Qt::Key_Tab);
  EXPECT_EQ(find("batch")->text(), "0.5");
  type("batch", "264.172 gal");
  EXPECT_NEAR(batchLitres(), 1000, 0.01);
  type("batch", "900 lb"); // a mass in a field of volumes
  EXPECT_TRUE(find("batch")->isWrong());
  EXPECT_NEAR(batchLitres(), 1000, 0.01) << "not 900 of anything";
  QTest::keyClick(find("batch"), Qt::Key_Escape);
  window->units().setVolume(VolumeShown::UsGallons);
  type("batch", "500 mL");
  EXPECT_NEAR(batchLitres(), 0.5, 1e-6);
  window->units().setVolume(VolumeShown::ImperialGallons);
  type("batch", "2 gal");
  EXPECT_NEAR(batchLitres(), 9.09218, 1e-6) << "in a field of imperial gallons, of those";
  press(Qt::Key_Tab);
  window->showStation(Station::Target);
  type("target_Ca", "6 meq/L");
  EXPECT_NEAR(editor().document().given.request.rows[4].milligramsPerLitre, 6 * 40.078 / 2, 0.01);
  type("target_Ca", "116 ppm");
  EXPECT_NEAR(editor().document().given.request.rows[4].milligramsPerLitre, 116, 1e-9);
  window->showStation(Station::Bench);
  type("scale1_capacity", "100 lb");
  EXPECT_NEAR(editor().document().given.scales[1].capacity.grams(), 45359.237, 0.01)
      << "not 100 of the field's own";
}

TEST_F(WindowTest, ADecimalCommaIsRead) {
  window->showStation(Station::Target);
  type("target_K", "205,5");
  EXPECT_DOUBLE_EQ(editor().document().given.request.rows[3].milligramsPerLitre, 205.5);
}

TEST_F(WindowTest, AnEmptyFieldIsEitherFreeOrAsked) {
  window->showStation(Station::Target);
  type("target_K", "");
  EXPECT_EQ(editor().document().given.request.rows.size(), 12u); // potassium is free now
  type("stockFactor", "");
  EXPECT_TRUE(find("stockFactor")->isWrong());
  EXPECT_DOUBLE_EQ(editor().document().given.stock.factor, 100);
}

TEST_F(WindowTest, ADamagedFileIsRefusedAndWhatIsOpenStays) {
  const auto before = editor().json();
  const auto path = folder.filePath("broken.butte.json");
  const auto text = exchange::formulaText(before);
  const auto writeAndOpen = [&](const std::string& content) {
    QFile file(path);
    EXPECT_TRUE(file.open(QIODevice::WriteOnly));
    file.write(content.data(), static_cast<qint64>(content.size()));
    file.close();
    EXPECT_FALSE(window->files().openFile(path));
    EXPECT_EQ(editor().json(), before);
  };
  writeAndOpen(text.substr(0, text.size() / 2));
  writeAndOpen("");
  writeAndOpen("[]");
  writeAndOpen("{\"format\": \"butte-formula\", \"version\": 99}");
  auto wrongType = before;
  wrongType["shelf"] = "salts";
  writeAndOpen(exchange::formulaText(wrongType));
  EXPECT_FALSE(window->files().openFile(folder.filePath("no/such/file.json")));
  EXPECT_EQ(troubles.size(), 6);
  EXPECT_THAT(troubles[4].toStdString(), HasSubstr("shelf: expected a list, found a text"));
}

TEST_F(WindowTest, AFolderThatIsNotThereIsSaidAndNothingIsLost) {
  EXPECT_FALSE(window->files().saveTo(folder.filePath("no/such/folder/a.json")));
  EXPECT_FALSE(window->files().exportSheetTo(folder.filePath("no/such/folder/a.pdf")));
  EXPECT_EQ(troubles.size(), 2);
}

/// The kernel's own full disk: whatever is written to it fails for want of space.
TEST(FormulaFile, AFullDiskIsNoticedBeforeTheOldFileIsTouched) {
  QFile full("/dev/full");
  ASSERT_TRUE(full.open(QIODevice::WriteOnly));
  EXPECT_FALSE(writeAll(full, exchange::formulaText(exchange::emptyFormula())));
  EXPECT_NE(full.error(), QFileDevice::NoError);
}

/// Where no temporary file can be made beside it, the old file stays whole.
TEST_F(WindowTest, ASaveThatFailsLeavesTheOldFileWhole) {
  QDir().mkpath(folder.filePath("place"));
  const auto path = folder.filePath("place/mine.butte.json");
  ASSERT_TRUE(window->files().saveTo(path));
  type("stockFactor", "150");
  QFile::rename(folder.filePath("place"), folder.filePath("moved")); // the stick was pulled out
  EXPECT_FALSE(window->files().saveTo(path));
  EXPECT_EQ(troubles.size(), 1);
  const auto old = readFormulaFile(folder.filePath("moved/mine.butte.json"));
  ASSERT_TRUE(old);
  EXPECT_EQ((*old)["stock"]["factor"], "100");
}

} // namespace butte::app
