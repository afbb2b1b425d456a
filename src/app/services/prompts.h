#pragma once
#include <QString>
#include <functional>

namespace butte::app {

class MainWindow;

/// Questions to the person, with a seam: tests answer in advance.
struct Prompts {
  /// A file to open or to make: title, suggested path, filter; empty when the person stepped back.
  std::function<QString(const QString&title, const QString&path, const QString&filter)> fileToOpen,
      fileToMake;
  std::function<QString(const QString& title, const QString& label, const QString& text)> words;
  /// Shows what is about to happen; true to go on.
  std::function<bool(const QString& title, const QString& text, const QString& goOn)> goOn;
  std::function<void(const QString& words)> trouble;
};

/// The real dialogs.
Prompts dialogPrompts(MainWindow& window);

} // namespace butte::app
