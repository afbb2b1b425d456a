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
    window->activateWindow(); // a list that closed took it away
    QApplication::processEvents();
    type(field, text);
  }
  void hit(const QString& button) {
    ++actions;
    click(button);
  }
  void choose(const QString& box, const QString& entry) {
    ++actions;
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

  void TearDown() override {
    RecordProperty("actions", actions);
    WindowTest::TearDown();
  }

  static std::string plain(const QString& html) {
    QTextDocument paper;
    paper.setHtml(html);
    return paper.toPlainText().toStdString();
  }
  std::string sheet() { return plain(benchSheetHtml(editor(), window->units(), "today")); }

  int actions = 0;
};

} // namespace butte::app
