// The sheet and the labels as text, for each kind of tank, held against files in tests/cases/goldens: a
// change of what is printed is seen and decided on. BUTTE_WRITE_GOLDENS=1 writes them anew.
#include "edits/stock_edits.h"
#include "print/sheet_text.h"
#include "print/tank_labels.h"
#include "window_fixture.h"

#include <QTextDocument>
#include <fstream>

namespace butte::app {
namespace {

std::string plainText(const QString& html) {
  QTextDocument document;
  document.setHtml(html);
  return document.toPlainText().toStdString() + "\n";
}

void expectAsKept(const std::string& name, const std::string& text) {
  const auto path = std::string(BUTTE_TEST_DATA) + "/cases/goldens/" + name + ".txt";
  if (qEnvironmentVariableIsSet("BUTTE_WRITE_GOLDENS")) {
    std::ofstream(path, std::ios::binary) << text;
    return;
  }
  std::ifstream file(path, std::ios::binary);
  const std::string kept{std::istreambuf_iterator<char>(file), {}};
  EXPECT_EQ(text, kept) << name;
}

class GoldenTest : public WindowTest {
protected:
  void expectPrints(const std::string& name) {
    const UnitsShown units(*settings);
    expectAsKept(name + "_sheet", plainText(benchSheetHtml(editor(), units, "22 November 2026")));
    expectAsKept(name + "_labels", plainText(tankLabelsHtml(editor(), units, "22 November 2026")));
  }
};

TEST_F(GoldenTest, SaltTanks) {
  expectPrints("salts");
}

TEST_F(GoldenTest, ATankForTraces) {
  StockEdits(editor()).addTank(core::TankUse::Traces);
  expectPrints("traces");
}

TEST_F(GoldenTest, ATankForAcid) {
  StockEdits(editor()).addTank(core::TankUse::Acid);
  expectPrints("acid");
}

TEST_F(GoldenTest, OneTankForAll) {
  StockEdits(editor()).removeTank(1);
  expectPrints("one_tank");
}

} // namespace
} // namespace butte::app
