// The sheet and the labels as text, for each kind of tank, as they are kept (support/golden.h).
#include "edits/stock_edits.h"
#include "print/sheet_text.h"
#include "print/tank_labels.h"
#include "support/golden.h"
#include "window_fixture.h"

#include <QTextDocument>

namespace butte::app {
namespace {

std::string plainText(const QString& html) {
  QTextDocument document;
  document.setHtml(html);
  return document.toPlainText().toStdString() + "\n";
}

class GoldenTest : public WindowTest {
protected:
  void expectPrints(const std::string& name) {
    const UnitsShown units(*settings);
    test::expectAsKept(name + "_sheet", plainText(benchSheetHtml(editor(), units, "22 November 2026")));
    test::expectAsKept(name + "_labels", plainText(tankLabels(editor(), units, "22 November 2026").join("")));
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
