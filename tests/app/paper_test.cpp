// What goes onto paper: pages, sizes, and no label cut in two.
#include "edits/formula_edits.h"
#include "edits/shelf_edits.h"
#include "edits/stock_edits.h"
#include "fields/number_field.h"
#include "print/paper.h"
#include "print/sheet_text.h"
#include "print/tank_labels.h"
#include "typed_numbers.h"
#include "window_fixture.h"

#include <QBuffer>
#include <QPdfWriter>

namespace butte::app {
namespace {

QString block(int lines) {
  QString html;
  for (int i = 0; i < lines; ++i)
    html += QString("<p style='margin:0'>line %1</p>").arg(i);
  return html;
}

struct Printed {
  PaperUse use;
  int pagesInFile = 0;
};

Printed print(const QStringList& blocks, QPageSize::PageSizeId paper = QPageSize::A4) {
  QBuffer buffer;
  buffer.open(QIODevice::ReadWrite);
  Printed out;
  {
    QPdfWriter writer(&buffer);
    writer.setPageSize(QPageSize(paper));
    writer.setPageMargins(QMarginsF(14, 12, 14, 12), QPageLayout::Millimeter);
    writer.setResolution(300);
    out.use = paintPages(blocks, writer);
  }
  out.pagesInFile = buffer.data().count("/Type /Page\n");
  return out;
}

} // namespace

class PaperTest : public WindowTest {
protected:
  QString sheet() { return benchSheetHtml(editor(), UnitsShown(*settings), "29 November 2026"); }
  QStringList labels() { return tankLabels(editor(), UnitsShown(*settings), "29 November 2026"); }
};

TEST_F(PaperTest, AShortSheetIsOnePageAtFullSize) {
  const auto out = print({block(20)});
  EXPECT_EQ(out.use.pages, 1);
  EXPECT_EQ(out.pagesInFile, 1);
  EXPECT_DOUBLE_EQ(out.use.scale, 1);
}

TEST_F(PaperTest, ALittleTooLongIsSetALittleSmaller) {
  int lines = 20;
  while (print({block(lines)}).use.scale == 1)
    ++lines;
  const auto out = print({block(lines)});
  EXPECT_EQ(out.use.pages, 1);
  EXPECT_GE(out.use.scale, 0.85);
}

TEST_F(PaperTest, MuchTooLongRunsOnOverPagesAtAReadableSize) {
  const auto out = print({block(400)});
  EXPECT_GE(out.use.pages, 4);
  EXPECT_EQ(out.pagesInFile, out.use.pages);
  EXPECT_GE(out.use.scale, 0.85);
  EXPECT_GE(print({block(400)}, QPageSize::Letter).use.pages, out.use.pages) << "Letter is shorter";
}

TEST_F(PaperTest, BlocksAreNotCutByThePagesEnd) {
  int lines = 20;
  while (print({block(lines)}).use.scale == 1)
    ++lines;
  const int half = lines / 2 + 2; // two of them do not fit one page
  const auto out = print({block(half), block(half), block(half)});
  EXPECT_EQ(out.use.pages, 3);
  EXPECT_DOUBLE_EQ(out.use.scale, 1);
}

TEST_F(PaperTest, TheDemosSheetAndLabelsStayReadable) {
  for (const auto paper : {QPageSize::A4, QPageSize::Letter}) {
    EXPECT_GE(print({sheet()}, paper).use.scale, 0.85);
    const auto out = print(labels(), paper);
    EXPECT_DOUBLE_EQ(out.use.scale, 1);
    EXPECT_LE(out.use.pages, labels().size());
  }
}

// Typed for one batch, looked at for others: back there it stands as it was typed.
TEST_F(PaperTest, AHeldWeightComesBackInItsOwnDigits) {
  window->showStation(Station::Formula);
  const auto held = [&] {
    const auto& products = editor().document().products;
    return products[static_cast<std::size_t>(editor().indexOf("kno3"))].held.value_or(exchange::Amount{});
  };
  FormulaEdits(editor()).setBatch({"3", "m3"});
  ShelfEdits(editor()).hold("kno3", {"1.5", "kg"}, false);
  FormulaEdits(editor()).setBatch({"7", "m3"});
  EXPECT_EQ(held().digits, "3.5");
  FormulaEdits(editor()).setBatch({"11", "m3"});
  FormulaEdits(editor()).setBatch({"9.1", "m3"});
  EXPECT_EQ(held().digits, "4.55");
  FormulaEdits(editor()).setBatch({"7.7", "m3"});
  FormulaEdits(editor()).setBatch({"3", "m3"});
  EXPECT_EQ(held().digits, "1.5");
  FormulaEdits(editor()).setBatch({"1.1", "m3"});
  auto* weight = find<NumberField>("weight_kno3");
  EXPECT_LE(weight->text().size(), 6) << weight->text().toStdString();
}

// Tank A five times weaker than B: a hand that doses both alike would halve the calcium.
TEST_F(PaperTest, TanksOfTheirOwnStrengthHaveTheirOwnDoses) {
  const auto plain = sheet();
  EXPECT_TRUE(plain.contains("of each tank (1:100)"));
  StockEdits(editor()).setOwnRatio(0, "20");
  const auto own = sheet();
  EXPECT_FALSE(own.contains("of each tank"));
  EXPECT_TRUE(own.contains("A 50.0 mL per L · B 10.0 mL per L"));
  window->showStation(Station::Stocks);
  EXPECT_TRUE(find<QLabel>("dose")->text().contains("A 50.0 mL per L · B 10.0 mL per L"));
}

// A reading was logged; the formula is on the screen: Ctrl+Z asks before it takes the reading, and shows
// where.
TEST_F(PaperTest, UndoOfWhatIsNotOnTheScreenAsksAndLeadsThere) {
  window->showStation(Station::Formula);
  auto& book = window->desk().book();
  const auto vessel = book.create(book::Kind::Vessel, exchange::Json{{"name", "north"}},
                                  {core::DeedCode::ReadingKept, {"ec", "north"}});
  ASSERT_TRUE(vessel);
  const auto reading = book.create(book::Kind::Reading,
                                   exchange::Json{{"vessel", vessel->uid},
                                                  {"quantity", "ph"},
                                                  {"at", "2026-03-02T07:15:00Z"},
                                                  {"value", 5.8},
                                                  {"typed", "5.8"}},
                                   {core::DeedCode::ReadingKept, {"ph", "north"}});
  ASSERT_TRUE(reading);
  const auto isThere = [&] {
    const auto found = book.record(*reading);
    return found && *found && !(*found)->binnedAt;
  };
  QString asked;
  bool yes = false;
  window->prompts().goOn = [&](const QString&, const QString& text, const QString&) {
    asked = text;
    return yes;
  };
  ASSERT_TRUE(isThere());
  press(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_FALSE(asked.isEmpty());
  EXPECT_TRUE(isThere()) << "no was said";
  EXPECT_EQ(window->station(), Station::Formula);
  yes = true;
  press(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_FALSE(isThere());
  EXPECT_EQ(window->station(), Station::Book);
}

} // namespace butte::app
