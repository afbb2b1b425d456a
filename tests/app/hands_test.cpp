// Hands that try everything at every station: every field gets nonsense and good figures, every button is
// pressed. Nothing may be lost, nothing red may count for good, and undo leads all the way back.
#include "window_fixture.h"

#include "formula/formula_answer.h"
#include "formula_json.h"
#include "support/random_formula.h"
#include "window/stations.h"

#include <QAbstractButton>
#include <QClipboard>
#include <QComboBox>
#include <QScrollArea>
#include <QTabBar>
#include <QTimer>
#include <random>
#include <set>

namespace butte::app {

class HandsTest : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    window->resize(1280, 770);
    start = editor().json();
    auto& prompts = window->prompts();
    prompts.goOn = [](const QString&, const QString&, const QString&) { return false; };
    prompts.words = prompts.fileToOpen =
        prompts.fileToMake = [](const QString&, const QString&, const QString&) { return QString(); };
  }

  /// The names of what is seen of this kind, in the order of the screen.
  template <class T> QStringList seen() {
    QStringList out;
    for (auto* widget : window->findChildren<T*>()) {
      if (widget->isVisible() && widget->isEnabled() && !widget->objectName().isEmpty())
        out << widget->objectName();
    }
    return out;
  }

  /// Nothing, where the last press took it away.
  template <class T> T* still(const QString& name) {
    auto* widget = window->findChild<T*>(name);
    return widget && widget->isVisible() && widget->isEnabled() ? widget : nullptr;
  }

  void expectTheFormulaComputes(const QString& after) {
    EXPECT_TRUE(core::compute(editor().document().given)) << after.toStdString();
    EXPECT_TRUE(exchange::readFormulaDocument(editor().json())) << after.toStdString();
  }

  /// Whatever the order of its keys: what was taken out and put back stands at the end.
  static nlohmann::json content(const exchange::Json& json) { return nlohmann::json::parse(json.dump()); }

  void undoAll(const QString& after) {
    const auto wanted = content(start);
    for (int i = 0; i < 60 && content(editor().json()) != wanted && editor().canUndo(); ++i) {
      editor().undo();
      QApplication::processEvents();
    }
    EXPECT_EQ(content(editor().json()), wanted) << "not all the way back after " << after.toStdString();
  }

  exchange::Json start;
};

TEST_F(HandsTest, NonsenseInAnyFieldTurnsItRedAndCountsForNothing) {
  int tried = 0;
  for (const auto& station : stations) {
    window->showStation(station.station);
    QApplication::processEvents();
    for (const auto& name : seen<NumberField>()) {
      auto* field = still<NumberField>(name);
      if (!field || field->isReadOnly()) continue;
      ++tried;
      const auto before = editor().json();
      for (const auto* nonsense : {"x", "1e999"}) {
        field = still<NumberField>(name);
        ASSERT_TRUE(field) << name.toStdString();
        field->setFocus();
        field->selectAll();
        QTest::keyClicks(field, nonsense);
        EXPECT_TRUE(field->isWrong()) << name.toStdString() << " takes " << nonsense;
        EXPECT_FALSE(field->message().isEmpty());
        EXPECT_EQ(field->text(), nonsense) << "what was typed stays to be mended";
        QTest::keyClick(field, Qt::Key_Escape);
        EXPECT_FALSE(field->isWrong()) << name.toStdString();
      }
      press(Qt::Key_Tab);
      expectTheFormulaComputes(name);
      if (editor().json() != before) undoAll(name);
    }
  }
  EXPECT_GT(tried, 60) << "fields of all stations";
}

/// A figure as a hand in a hurry types or pastes it: now and then a right one.
QString hurriedFigure(std::mt19937& dice) {
  const auto one = [&](const QStringList& of) {
    return of[static_cast<int>(std::uniform_int_distribution<std::size_t>(0, of.size() - 1)(dice))];
  };
  const QStringList numbers{
      "1",   "12",  "0.5",  ",5",   "1,2", "1.000",       "1 000", "3/4",   "½",   "",   "-3",   "+4", "1e3",
      "nan", "inf", "0x10", "1..2", "٣",   "99999999999", "1.2.3", "1,2,3", "5-7", "~4", "<0.1", "$3", "#"};
  const QStringList units{"",     "g",     "kg",    "lb",   "oz",    "mL",  "ml",  "L",     "gal", "m3",
                          "mg/L", "meq/L", "ppm",   "µg/L", "mS/cm", "CF",  "dH",  "%",     "C",   "F",
                          "pH",   "cm",    "years", "gpg",  "kg kg", "g/L", "mol", "mmol/L"};
  if (dice() % 3 == 0) return one({"1", "2", "5", "12", "0.5", "2,5", "40", "100"});
  auto text = one(numbers) + one({"", " ", "  "}) + one(units);
  if (std::uniform_int_distribution<int>(0, 9)(dice) == 0) text += one(numbers);
  return text;
}

// What is red never counts, whatever was typed: the formula stands as it stood before.
TEST_F(HandsTest, WhateverIsTypedNothingRedCounts) {
  std::mt19937 dice(19);
  const int perStation = std::max(30, test::randomCases(30) / static_cast<int>(std::size(stations)));
  int red = 0, good = 0;
  for (const auto& station : stations) {
    window->showStation(station.station);
    QApplication::processEvents();
    const auto names = seen<NumberField>();
    for (int i = 0; i < perStation && !names.isEmpty(); ++i) {
      const auto& name = names[static_cast<int>(dice() % static_cast<unsigned>(names.size()))];
      auto* field = still<NumberField>(name);
      if (!field || field->isReadOnly()) continue;
      const auto before = content(editor().json());
      const auto figure = hurriedFigure(dice);
      QApplication::clipboard()->setText(figure);
      field->setFocus();
      field->selectAll();
      field->paste();
      QApplication::processEvents();
      field = still<NumberField>(name);
      if (!field || !field->isWrong()) {
        ++good;
        expectTheFormulaComputes(name + " <- " + figure);
      } else {
        ++red;
        EXPECT_EQ(content(editor().json()), before)
            << name.toStdString() << " is red with '" << figure.toStdString() << "' and counts";
        EXPECT_FALSE(field->message().isEmpty());
        QTest::keyClick(field, Qt::Key_Escape);
      }
      undoAll(name + " <- " + figure);
      if (HasFailure()) return;
      window->showStation(station.station);
    }
  }
  EXPECT_GT(red, 40);
  EXPECT_GT(good, 20);
}

TEST_F(HandsTest, AFigureInAnyFieldComputesAndIsTakenBack) {
  int changed = 0;
  for (const auto& station : stations) {
    if (station.station == Station::Book) continue; // its fields belong to batches, walked in book_page_test
    window->showStation(station.station);
    QApplication::processEvents();
    for (const auto& name : seen<NumberField>()) {
      auto* field = still<NumberField>(name);
      if (!field || field->isReadOnly()) continue;
      field->setFocus();
      field->selectAll();
      QTest::keyClicks(field, "7");
      if (auto* there = still<NumberField>(name); there && there->isWrong())
        QTest::keyClick(there, Qt::Key_Escape);
      press(Qt::Key_Tab);
      changed += editor().json() != start;
      expectTheFormulaComputes(name);
      undoAll(name);
      if (window->desk().inHand().uid.empty() || HasFailure()) return;
      window->showStation(station.station);
    }
  }
  EXPECT_GT(changed, 30);
}

TEST_F(HandsTest, AnyButtonMayBePressedAndLeavesAFormulaThatComputes) {
  // What opens a menu, or asks in a dialog of its own (the printer's), is stepped back from.
  QTimer stepBack;
  QObject::connect(&stepBack, &QTimer::timeout, [] {
    if (auto* menu = QApplication::activePopupWidget()) menu->close();
    if (auto* modal = QApplication::activeModalWidget()) modal->close();
  });
  stepBack.start(50);
  int pressed = 0;
  std::set<QString> kinds;
  for (const auto& station : stations) {
    window->showStation(station.station);
    QApplication::processEvents();
    for (const auto& name : seen<QAbstractButton>()) {
      auto* button = still<QAbstractButton>(name);
      // Of the shelf's many alike the instrument_test presses others.
      const auto kind = name.section('_', 0, 0);
      if (!button || name.startsWith("qt_") || !kinds.insert(kind).second) continue;
      ++pressed;
      QTest::mouseClick(button, Qt::LeftButton);
      QApplication::processEvents();
      expectTheFormulaComputes(name);
      window->showStation(station.station);
    }
  }
  EXPECT_GT(pressed, 25);
  // Whatever was done, it can be taken back until nothing is left to take back, and done again.
  for (int i = 0; i < 40 && editor().canUndo(); ++i) {
    editor().undo();
    QApplication::processEvents();
    expectTheFormulaComputes("undo");
  }
}

TEST_F(HandsTest, AnyEntryOfAnyListMayBeChosen) {
  int chosen = 0;
  for (const auto& station : stations) {
    window->showStation(station.station);
    QApplication::processEvents();
    for (const auto& name : seen<QComboBox>()) {
      auto* box = still<QComboBox>(name);
      if (!box) continue;
      const int entries = std::min(box->count(), 6);
      for (int i = 0; i < entries; ++i) {
        box = still<QComboBox>(name);
        if (!box || i >= box->count()) break;
        ++chosen;
        box->setCurrentIndex(i);
        emit box->activated(i);
        QApplication::processEvents();
        expectTheFormulaComputes(name);
        window->showStation(station.station);
      }
    }
  }
  EXPECT_GT(chosen, 80);
}

} // namespace butte::app
