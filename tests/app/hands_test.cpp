// Hands that try everything at every station: every field gets nonsense and good figures, every button is
// pressed. Nothing may be lost, nothing red may count for good, and undo leads all the way back.
#include "window_fixture.h"

#include "formula/formula_answer.h"
#include "formula_json.h"
#include "window/stations.h"

#include <QAbstractButton>
#include <QComboBox>
#include <QScrollArea>
#include <QTabBar>
#include <QTimer>
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

  void undoAll(const QString& after) {
    for (int i = 0; i < 60 && editor().json() != start && editor().canUndo(); ++i) {
      editor().undo();
      QApplication::processEvents();
    }
    EXPECT_EQ(editor().json(), start) << "not all the way back after " << after.toStdString();
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
