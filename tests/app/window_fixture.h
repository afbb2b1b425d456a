#pragma once
#include "fields/number_field.h"
#include "stations/element_lanes.h"
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

/// A new window with the demo, its own settings and draft folder, and prompts that fail on an unplanned
/// question.
class WindowTest : public ::testing::Test {
protected:
  void SetUp() override { openWindow(true); }

  void openWindow(bool demo) {
    settings = std::make_unique<QSettings>(folder.filePath("settings.ini"), QSettings::IniFormat);
    window = std::make_unique<MainWindow>(*settings, folder.filePath("drafts"));
    auto& prompts = window->files().prompts;
    prompts.aboutUnsaved = [](const QString&) {
      ADD_FAILURE() << "unplanned question about unsaved work";
      return Prompts::Unsaved::Stay;
    };
    prompts.trouble = [this](const QString& text) { troubles << text; };
    if (demo) window->files().openDemo();
    window->show();
    window->activateWindow();
    QApplication::processEvents();
  }

  FormulaEditor& editor() { return window->editor(); }

  template <class T = NumberField> T* find(const QString& name) {
    auto* widget = window->findChild<T*>(name);
    EXPECT_NE(widget, nullptr) << name.toStdString();
    return widget;
  }

  /// As a hand would: into the field, everything marked, typed over.
  void type(const QString& name, const QString& text) {
    auto* field = find(name);
    ASSERT_NE(field, nullptr);
    field->setFocus();
    field->selectAll();
    if (text.isEmpty())
      QTest::keyClick(field, Qt::Key_Delete);
    else
      QTest::keyClicks(field, text);
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
