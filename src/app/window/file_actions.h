#pragma once
#include <QObject>
#include <QSettings>
#include <QString>
#include <functional>

class QMenu;

namespace butte::app {

class MainWindow;

/// Questions to the person, with a seam: tests answer in advance.
struct Prompts {
  enum class Unsaved { Save, Discard, Stay };
  std::function<Unsaved(const QString& name)> aboutUnsaved;
  std::function<QString(const QString& suggested)> fileToOpen, fileToSave, pdfToSave;
  std::function<void(const QString& words)> trouble;
};

/// The File menu: new, open, recent, save, the bench sheet, quit.
class FileActions : public QObject {
  Q_OBJECT

public:
  FileActions(MainWindow& window, QSettings& settings);

  Prompts prompts;
  void newFormula();
  void open();
  bool openFile(const QString& path);
  bool save();
  bool saveAs();
  bool saveTo(const QString& path);
  void exportSheet();
  bool exportSheetTo(const QString& path);
  void printSheet();
  void openDemo();
  /// Asks about unsaved work; false to stay.
  bool mayLeave();
  QStringList recentFiles() const;

private:
  void addActions(QMenu* menu);
  void fillRecent();
  void remember(const QString& path);
  QString suggestedName(const QString& ending) const;
  MainWindow& m_window;
  QSettings& m_settings;
  QMenu* m_recent = nullptr;
};

/// The real dialogs.
Prompts dialogPrompts(MainWindow& window);

} // namespace butte::app
