#pragma once
#include "print/sheet_text.h"
#include "services/units_shown.h"
#include "window_fixture.h"

#include <QComboBox>
#include <QTextDocument>

namespace butte::app {

/// A job walked from a fresh formula in US units by typing and pressing alone; what the hand did is counted.
class JobWalk : public WindowTest {
protected:
  void SetUp() override {
    openWindow(false);
    takeEmptyFormula();
    trigger("units_us");
    window->showStation(Station::Formula);
    QApplication::processEvents();
  }

  void fill(const QString& field, const QString& text) {
    ++actions;
    ++fills;
    letters += static_cast<int>(text.size()) + 1; // and the key that leaves the field
    window->activateWindow();                     // a list that closed took it away
    QApplication::processEvents();
    type(field, text);
  }
  void hit(const QString& button) {
    ++actions;
    click(button);
  }
  void choose(const QString& box, const QString& entry) {
    ++actions;
    ++choices;
    auto* list = find<QComboBox>(box);
    list->showPopup();
    list->hidePopup();
    const int at = list->findText(entry, Qt::MatchContains);
    ASSERT_GE(at, 0) << entry.toStdString();
    list->setCurrentIndex(at);
    emit list->activated(at);
    emit list->textActivated(list->itemText(at));
    QApplication::processEvents();
  }
  void go(Station station) {
    ++actions;
    window->showStation(station);
    QApplication::processEvents();
  }

  /// How long a practised hand would take, by the keystroke-level model (Card, Moran, Newell 1980: a key 0.28
  /// s, pointing 1.1, a button 0.2, the way from mouse to keys and back 0.4 each, a thought 1.35). A
  /// reckoning, not a measurement of people; reading the answers is not in it.
  double reckonedSeconds() const {
    constexpr double key = 0.28, point = 1.1, button = 0.2, home = 0.4, thought = 1.35;
    const double press = thought + point + button;
    return actions * press + fills * 2 * home + letters * key + choices * (point + button);
  }

  void TearDown() override {
    RecordProperty("actions", actions);
    RecordProperty("reckoned_seconds", static_cast<int>(reckonedSeconds()));
    if (qEnvironmentVariableIsSet("BUTTE_JOBS"))
      std::printf("JOB %s | %d | %.0f s\n", ::testing::UnitTest::GetInstance()->current_test_info()->name(),
                  actions, reckonedSeconds());
    WindowTest::TearDown();
  }

  static std::string plain(const QString& html) {
    QTextDocument paper;
    paper.setHtml(html);
    return paper.toPlainText().toStdString();
  }
  std::string sheet() { return plain(benchSheetHtml(editor(), window->units(), "today")); }

  int actions = 0, fills = 0, choices = 0, letters = 0;
};

} // namespace butte::app
