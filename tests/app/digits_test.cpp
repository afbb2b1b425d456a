// As many digits as the error allows: no figure computed shows more than four that count, no code and no raw
// number gets through, whatever the units and however crooked the amounts.
#include "edits/formula_edits.h"
#include "edits/shelf_edits.h"
#include "edits/stock_edits.h"
#include "edits/target_edits.h"
#include "window_fixture.h"

#include "print/sheet_text.h"
#include "print/tank_labels.h"
#include "window/stations.h"

#include <QAbstractButton>
#include <QComboBox>
#include <QRegularExpression>
#include <QSet>
#include <QTextBrowser>
#include <QTextDocumentFragment>

namespace butte::app {

/// Digits that count: "0.00120" has three, "37,270" four (zeros at the end of a whole number do not count).
int countingDigits(QString number) {
  number.remove(',');
  const bool whole = !number.contains('.');
  number.remove('.');
  while (number.startsWith('0'))
    number.remove(0, 1);
  while (whole && number.endsWith('0'))
    number.chop(1);
  return static_cast<int>(number.size());
}

/// What is wrong with the figures of a text; empty for nothing.
QString faultOf(const QString& text) {
  static const QRegularExpression number("(?<![\\w.,/-])\\d[\\d,]*(?:\\.\\d+)?(?![\\d.]*[\\w-]*\\d{4})");
  static const QRegularExpression rough(
      "\\d[eE][+-]?\\d\\d|\\bnan\\b|\\binf\\b|-0\\.?0*(?!\\.?\\d)\\b|[a-z]_[a-zA-Z]|%\\d|\\{\\}");
  if (const auto found = rough.match(text); found.hasMatch()) return "raw: " + found.captured();
  for (auto it = number.globalMatch(text); it.hasNext();) {
    const auto figure = it.next().captured();
    if (countingDigits(figure) > 4) return "too many digits: " + figure;
  }
  return {};
}

TEST(Digits, TheCheckItselfFindsThem) {
  EXPECT_EQ(countingDigits("0.00120"), 3);
  EXPECT_EQ(countingDigits("37,270"), 4);
  EXPECT_EQ(countingDigits("37271"), 5);
  EXPECT_FALSE(faultOf("makes 37271 L").isEmpty());
  EXPECT_FALSE(faultOf("1.1401817426084013 is out of range").isEmpty());
  EXPECT_FALSE(faultOf("in gal_us").isEmpty());
  EXPECT_FALSE(faultOf("4.5e-07 g").isEmpty());
  EXPECT_FALSE(faultOf("off by -0.0 %").isEmpty());
  EXPECT_TRUE(faultOf("1,250 L at 1:100, 0.0912 mL per L, 22 November 2026, 2026-11-22").isEmpty());
}

class DigitsTest : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    window->resize(1280, 770);
  }

  void expectFew(const QString& where, const QString& text) {
    if (m_read.contains(text)) return;
    m_read.insert(text);
    const auto plain = Qt::mightBeRichText(text) ? QTextDocumentFragment::fromHtml(text).toPlainText() : text;
    for (auto line : plain.split('\n')) {
      line.remove(folder.path());                           // made up by the system
      line.remove(QRegularExpression("^77777$"));           // as it was typed
      line.remove(QRegularExpression("[\\d.]+ per batch")); // money
      // A weight is told in the steps of the scale that it is for: all that its display shows.
      line.replace(QRegularExpression("^([\\d.,]+ (lb|oz))?( ?\\(?[\\d,.]+ g\\)?)( in \\d+ loads)?$"), "\\1");
      const auto fault = faultOf(line);
      if (fault.isEmpty() || m_told.contains(fault)) continue;
      m_told << fault;
      ADD_FAILURE() << where.toStdString() << ": " << fault.toStdString() << " in: " << line.toStdString();
    }
  }

  void readAll(const QString& where) {
    QApplication::processEvents();
    for (const auto* widget : window->findChildren<QWidget*>()) {
      if (!widget->isVisible()) continue;
      const auto name = where + " " + widget->objectName();
      expectFew(name + " (tip)", widget->toolTip());
      expectFew(name + " (description)", widget->accessibleDescription());
      if (const auto* label = qobject_cast<const QLabel*>(widget)) expectFew(name, label->text());
      if (const auto* button = qobject_cast<const QAbstractButton*>(widget)) expectFew(name, button->text());
      if (const auto* field = qobject_cast<const NumberField*>(widget)) {
        const bool inSteps =
            field->objectName().startsWith("weight_") && editor().document().given.wholeSteps;
        if (!inSteps) expectFew(name, field->text());
        expectFew(name + " (hint)", field->placeholderText());
      }
      if (const auto* view = qobject_cast<const QTextBrowser*>(widget)) expectFew(name, view->toPlainText());
      if (const auto* box = qobject_cast<const QComboBox*>(widget))
        for (int i = 0; i < box->count(); ++i)
          expectFew(name, box->itemText(i));
    }
  }

  void walk(const QString& units) {
    for (const auto& station : stations) {
      window->showStation(station.station);
      const auto where = QString("%1, station %2").arg(units).arg(static_cast<int>(station.station));
      readAll(where);
      if (station.station != Station::Stocks && station.station != Station::Book) continue;
      for (auto* tab : window->findChildren<QAbstractButton*>()) {
        if (!tab->isVisible() || !tab->isCheckable() || tab->objectName().startsWith("hold")) continue;
        QTest::mouseClick(tab, Qt::LeftButton);
        readAll(where + " " + tab->text());
      }
    }
    const auto paper = benchSheetHtml(editor(), window->units(), "22 November 2026") +
                       tankLabels(editor(), window->units(), "22 November 2026").join("");
    for (const auto& line : QTextDocumentFragment::fromHtml(paper).toPlainText().split('\n'))
      expectFew(units + ", paper", line);
  }

  void walkMetric() {
    window->units().setMass(MassShown::Metric);
    window->units().setVolume(VolumeShown::Litres);
    window->units().setConductivity(ConductivityShown::MilliSiemens);
    walk("metric");
  }
  void walkUs() {
    window->units().setMass(MassShown::Ounces);
    window->units().setVolume(VolumeShown::UsGallons);
    window->units().setConductivity(ConductivityShown::Ppm500);
    walk("US");
  }
  void walkImperial() {
    window->units().setMass(MassShown::Pounds);
    window->units().setVolume(VolumeShown::ImperialGallons);
    window->units().setConductivity(ConductivityShown::Ppm700);
    walk("pounds");
  }

private:
  QStringList m_told;
  QSet<QString> m_read; ///< the same text is right or wrong wherever it stands
};

TEST_F(DigitsTest, OfTheDemo) {
  walkMetric();
  walkUs();
  walkImperial();
}

TEST_F(DigitsTest, OfCrookedAmounts) {
  FormulaEdits(editor()).setBatch({"37.7", "gal_us"});
  StockEdits stock(editor());
  stock.setStrength("87.3");
  stock.setTankVolume(0, {"26.4", "gal_us"});
  stock.setTankVolume(1, {"13.7", "gal_us"});
  stock.setOwnRatio(1, "43.7");
  stock.setColdest({"7.3", "C"});
  stock.setMargin("12.5");
  stock.addTank(core::TankUse::Traces);
  stock.setVesselShape(0, core::VesselShape::Round);
  ShelfEdits(editor()).hold("kno3", {"33.3", "g"}, false);
  TargetEdits(editor()).setFigure(core::Nutrient::K, {"207.3", "mg/L"});
  walkMetric();
  walkImperial();
}

TEST_F(DigitsTest, OfAJugAndOfALake) {
  FormulaEdits(editor()).setBatch({"1", "gal_us"});
  StockEdits(editor()).setTankVolume(0, {"330", "mL"});
  StockEdits(editor()).setTankVolume(1, {"330", "mL"});
  FormulaEdits(editor()).setWholeSteps(true);
  walkImperial();
  FormulaEdits(editor()).setBatch({"77777", "L"});
  StockEdits(editor()).setTankVolume(0, {"7777", "L"});
  walkMetric();
}

} // namespace butte::app
