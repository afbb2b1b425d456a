#pragma once
#include "services/prompts.h"

#include <QObject>
#include <QSettings>
#include <QString>

class QMenu;

namespace butte::app {

class MainWindow;

/// The Formula menu: a new one, one from a file or into a file, its bench sheet; and the way out.
class FileActions : public QObject {
  Q_OBJECT

public:
  FileActions(MainWindow& window, QSettings& settings, Prompts& prompts);

  void newFormula();
  void copyFormula();
  void scaleToConductivity();
  void open();
  /// Puts the formula in a file into the book.
  bool openFile(const QString& path);
  bool saveAs();
  bool saveTo(const QString& path);
  void exportSheet();
  /// The one gate before paper and book: false, and says why, where the weights are not sure.
  bool mayLeave();
  bool exportSheetTo(const QString& path);
  void printSheet();
  void exportStageCard();
  bool exportStageCardTo(const QString& path);
  void exportLabels();
  /// Of bags that were weighed.
  void exportBagLabels(const QStringList& labels);
  bool exportLabelsTo(const QString& path);
  void printLabels();
  void nameVersion();
  void binFormula();

private:
  void addActions(QMenu* menu);
  void addStrengths(QMenu* menu);
  std::optional<int> keepVersion(const QString& why);
  QString dayAndVersion();
  QString suggestedName(const QString& ending) const;
  MainWindow& m_window;
  QSettings& m_settings;
  Prompts& m_prompts;
};

} // namespace butte::app
