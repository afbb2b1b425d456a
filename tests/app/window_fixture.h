#pragma once
#include "document/formula_file.h"
#include "fields/number_field.h"
#include "formula_json.h"
#include "stations/book/book_page.h"
#include "stations/formula/element_lanes.h"
#include "support/told.h"
#include "window/book_actions.h"
#include "window/file_actions.h"
#include "window/main_window.h"

#include <QAction>
#include <QApplication>
#include <QFile>
#include <QLabel>
#include <QTemporaryDir>
#include <QTest>
#include <gmock/gmock.h>
#include <memory>

inline void PrintTo(const QString& text, std::ostream* out) {
  *out << text.toStdString();
}

namespace butte::app {

/// A new window with a book of its own that holds the demo's formula, its own settings and folder, and
/// prompts that fail on an unplanned question.
class WindowTest : public ::testing::Test {
protected:
  void SetUp() override { openWindow(true); }

  /// The window alone, no book open yet.
  void bareWindow() {
    window.reset();
    settings = std::make_unique<QSettings>(folder.filePath("settings.ini"), QSettings::IniFormat);
    window = std::make_unique<MainWindow>(*settings, folder.filePath("data"));
    auto& prompts = window->prompts();
    prompts.goOn = [](const QString& title, const QString& text, const QString&) {
      ADD_FAILURE() << "unplanned question: " << title.toStdString() << ": " << text.toStdString();
      return false;
    };
    prompts.words = [](const QString& title, const QString&, const QString&) {
      ADD_FAILURE() << "unplanned question: " << title.toStdString();
      return QString();
    };
    prompts.fileToOpen = prompts.fileToMake = [](const QString& title, const QString&, const QString&) {
      ADD_FAILURE() << "unplanned question for a file: " << title.toStdString();
      return QString();
    };
    prompts.trouble = [this](const QString& text) { troubles << text; };
  }

  void showWindow() {
    window->show();
    window->activateWindow();
    QApplication::processEvents();
  }

  QString bookPath() const { return folder.filePath("farm.butte"); }

  void openWindow(bool demo) {
    bareWindow();
    const auto trouble = QFile::exists(bookPath()) ? window->desk().openBook(bookPath())
                                                   : window->desk().createBook(bookPath(), "Test farm");
    ASSERT_FALSE(trouble);
    if (demo) {
      ASSERT_FALSE(window->desk().addFormula(*readFormulaFile(":/demo/ormsey.json"), told("demo")));
    }
    showWindow();
  }

  /// Closed and opened again, as after a night.
  void reopenWindow() {
    bareWindow();
    ASSERT_FALSE(window->desk().openBook(bookPath()));
    showWindow();
  }

  /// In hand from now on: nothing in it at all.
  void takeEmptyFormula() {
    ASSERT_FALSE(window->desk().addFormula(exchange::emptyFormula(), told("empty")));
  }

  FormulaEditor& editor() { return window->editor(); }
  book::Book& book() { return window->desk().book(); }

  template <class T = NumberField> T* find(const QString& name) {
    auto* widget = window->findChild<T*>(name);
    EXPECT_NE(widget, nullptr) << name.toStdString();
    return widget;
  }

  /// As a hand would: into the field, everything marked, typed over.
  void type(const QString& name, const QString& text) {
    auto* field = find<QLineEdit>(name);
    ASSERT_NE(field, nullptr);
    // The tanks' own fields stand at the Stocks station: a hand goes there first.
    if (!field->isVisible() &&
        (name.startsWith("stock") || name.startsWith("tank") || name == "alkalinityLeft"))
      window->showStation(Station::Stocks);
    field->setFocus();
    field->selectAll();
    if (text.isEmpty())
      QTest::keyClick(field, Qt::Key_Delete);
    else
      QTest::keyClicks(field, text);
  }

  void click(const QString& name) {
    auto* button = find<QWidget>(name);
    ASSERT_NE(button, nullptr);
    QTest::mouseClick(button, Qt::LeftButton);
    QApplication::processEvents();
  }

  void press(Qt::Key key, Qt::KeyboardModifiers modifiers = Qt::NoModifier) {
    QTest::keyClick(QApplication::focusWidget() ? QApplication::focusWidget() : window.get(), key, modifiers);
  }

  void trigger(const QString& action) {
    auto* found = window->findChild<QAction*>(action);
    ASSERT_NE(found, nullptr) << action.toStdString();
    found->trigger();
  }

  QString lane(core::Nutrient nutrient) { return window->findChild<ElementLanes*>()->laneText(nutrient); }
  double grams(const char* id) { return editor().gramsOf(id).value_or(core::Mass::fromGrams(-1)).grams(); }

  QTemporaryDir folder;
  std::unique_ptr<QSettings> settings;
  std::unique_ptr<MainWindow> window;
  QStringList troubles;
};

} // namespace butte::app
