// One choice of units rules everything: with those of the US and ppm no station, sheet, label, tip or message
// says a metric one, and the other way round. mg/L of an element, meq/L and mmol/L are the trade's units
// everywhere (common practice); a pump, a syringe and a burette are marked in mL.
#include "support/all_texts.h"
#include "window_fixture.h"

#include "print/sheet_text.h"
#include "print/tank_labels.h"
#include "stations/stocks/stocks_page.h"
#include "stations/tank/tank_page.h"

#include <QAbstractButton>
#include <QRegularExpression>

namespace butte::app {
namespace {

const QRegularExpression
    metric("(?<![\\w/])(kg|m³|mS/cm|µS/cm|g/L|°C|litres?)(?![\\w])|\\d\\s?(g|L)(?![\\w/])|^g$|^L$"
           "|per L\\b");
const QRegularExpression
    states("(?<![\\w/])(oz|lb|gal|fl oz|tsp|tbsp|°F|ounces|pounds|gallons?)(?![\\w])|ppm");

class OneChoiceOfUnits : public WindowTest {
protected:
  void TearDown() override {
    window.reset();
    words::measureIn({});
  }

  void expectNone(const QRegularExpression& units, const QString& where, QString text) {
    text.remove(QRegularExpression("<[^>]*>"));
    // What lists all units to choose from, or reads a paper in its own, is no figure of ours.
    for (const auto* choice : {"nit", "ratioForm", "first", "form_"})
      if (where.contains(choice) && where.contains("choice")) return;
    const auto found = units.match(text);
    EXPECT_FALSE(found.hasMatch()) << where.toStdString() << ": \"" << text.toStdString() << "\" says "
                                   << found.captured().toStdString();
  }

  /// A batch, bags and a practice run, each from what stands ready to what came of it.
  void lookAtRuns(const std::function<void(const QString&, const QString&)>& look) {
    window->prompts().words = [](const QString&, const QString&, const QString&) { return QString("2"); };
    window->prompts().goOn = [](const QString&, const QString&, const QString&) { return true; };
    for (const auto* sort : {"weighHere", "weighBags", "practiceRun"}) {
      window->showStation(Station::Bench);
      click(sort);
      test::forAllTexts(*window, QString(sort) + " ready", look);
      click("runNext");
      if (find("runVolume")->isVisible()) click("runNext");
      test::forAllTexts(*window, QString(sort) + " weighing", look);
      type("runMass", "20000 g");
      click("runNext");
      test::forAllTexts(*window, QString(sort) + " too much", look);
      click("runAccept");
      click("runNext");
      if (QString(sort) != "weighHere") click("runEnd");
      test::forAllTexts(*window, QString(sort) + " then", look);
      click("runLeave");
    }
  }

  void expectNoneAnywhere(const QRegularExpression& units) {
    const auto look = [&](const QString& where, const QString& text) { expectNone(units, where, text); };
    for (const auto& info : stations) {
      window->showStation(info.station);
      QApplication::processEvents();
      test::forAllTexts(*window, info.key, look);
    }
    window->showStation(Station::Tank);
    ASSERT_TRUE(QTest::qWaitFor([&] { return window->tankPage().isSettled(); }, 20000));
    for (const auto* part : {"tankNow", "tankLogTab", "tankRoot", "tankWarmth", "tankFacts"}) {
      click(part);
      test::forAllTexts(*window, part, look);
    }
    window->showStation(Station::Stocks);
    for (int part = 0; part <= static_cast<int>(StocksPage::Part::Levels); ++part) {
      window->stocksPage().showPart(static_cast<StocksPage::Part>(part));
      QApplication::processEvents();
      test::forAllTexts(*window, "stocks part " + QString::number(part), look);
    }
    window->showStation(Station::Book);
    for (int section = 0; section <= BookPage::Copies; ++section) {
      window->bookPage().showSection(static_cast<BookPage::Section>(section));
      QApplication::processEvents();
      test::forAllTexts(*window, "book part " + QString::number(section), look);
    }
    lookAtRuns(look);
    expectNone(units, "sheet", benchSheetHtml(editor(), window->units(), "30 November 2026"));
    for (const auto& label : tankLabels(editor(), window->units(), "30 November 2026"))
      expectNone(units, "label", label);
  }

  /// The hand's own figures stay as they were typed: those of the demo are typed anew.
  void typeInUnitsOfTheStates() {
    window->showStation(Station::Water);
    type("waterEc", "");
    window->showStation(Station::Bench);
    for (const auto* scale : {"scale0_unit", "scale1_unit"}) {
      auto* box = find<QComboBox>(scale);
      box->setCurrentText("lb");
      emit box->textActivated("lb");
    }
  }
};

TEST_F(OneChoiceOfUnits, InThoseOfTheStatesNothingIsMetric) {
  trigger("units_us");
  typeInUnitsOfTheStates();
  expectNoneAnywhere(metric);
}

TEST_F(OneChoiceOfUnits, InMetricOnesNothingIsOfTheStates) {
  trigger("units_us");
  trigger("units_metric");
  expectNoneAnywhere(states);
}

TEST_F(OneChoiceOfUnits, DirectlyIntoAJugToo) {
  trigger("units_us");
  typeInUnitsOfTheStates();
  window->showStation(Station::Stocks);
  click("wayDirect");
  expectNoneAnywhere(metric);
}

TEST_F(OneChoiceOfUnits, TheMenuTicksWhatIsInForceWhereverItWasChosen) {
  const auto ticked = [this](const char* name) { return window->findChild<QAction*>(name)->isChecked(); };
  EXPECT_TRUE(ticked("units_g") && ticked("units_c") && ticked("paper_a4"));
  window->units().setAll(UnitsOf::UnitedStates);
  EXPECT_TRUE(ticked("units_lb") && ticked("units_gal_us") && ticked("units_ppm500") && ticked("units_f") &&
              ticked("units_floz") && ticked("paper_letter"));
  window->units().setConductivity(ConductivityShown::Ppm700);
  EXPECT_TRUE(ticked("units_ppm700"));
  EXPECT_FALSE(ticked("units_ppm500"));
}

TEST_F(OneChoiceOfUnits, AChangeLosesNoDigitOfWhatWasTyped) {
  window->showStation(Station::Stocks);
  type("coldest", "7.5");
  const auto before = editor().json();
  trigger("units_us");
  EXPECT_EQ(find("coldest")->text(), "45.5");
  trigger("units_uk");
  trigger("units_metric");
  EXPECT_EQ(find("coldest")->text(), "7.5");
  EXPECT_EQ(editor().json(), before);
  trigger("units_us");
  type("coldest", "50");
  EXPECT_EQ(editor().json()["stock"]["coldest"]["unit"], "F");
  EXPECT_NEAR(editor().document().given.stock.temperature.celsius(), 10, 1e-9);
  EXPECT_EQ(editor().undoWords().contains("50 °F"), true) << editor().undoWords().toStdString();
}

TEST_F(OneChoiceOfUnits, ADropIsLearntByCounting) {
  trigger("units_spoons");
  EXPECT_EQ(window->units().liquidText(core::Volume::fromMillilitres(0.5)), "10 drops");
  window->prompts().words = [](const QString&, const QString&, const QString& now) {
    EXPECT_EQ(now, "100");
    return QString("150");
  };
  trigger("dropSize");
  EXPECT_EQ(window->units().liquidText(core::Volume::fromMillilitres(0.5)), "15 drops");
  window->prompts().words = [](const QString&, const QString&, const QString&) {
    return QString("3 spoons");
  };
  trigger("dropSize");
  EXPECT_EQ(troubles.size(), 1);
  EXPECT_EQ(window->units().liquidText(core::Volume::fromMillilitres(0.5)), "15 drops");
}

TEST_F(OneChoiceOfUnits, AScaleShowsWhatItsDisplayShows) {
  window->showStation(Station::Bench);
  const auto step = find("scale0_readability")->text();
  trigger("units_us");
  EXPECT_EQ(find("scale0_readability")->text(), step) << "the scale on the bench is the same";
  EXPECT_EQ(find<QComboBox>("scale0_unit")->currentText(), "g");
  const auto sheet = benchSheetHtml(editor(), window->units(), "30 November 2026");
  EXPECT_TRUE(sheet.contains(QRegularExpression("<b>[\\d.]+ lb \\([\\d.]+ g\\)</b>")))
      << "the unit chosen, and beside it what the scale shows";
}

} // namespace
} // namespace butte::app
