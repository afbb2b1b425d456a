#pragma once
#include <QObject>
#include <QString>
#include <QTimer>

namespace butte::app {

class FormulaEditor;

/// Keeps the formula in hand in a draft file, so that it comes back after a power cut or kill -9.
/// The draft is written a moment after each edit and goes when the work is saved or put aside on purpose.
class DraftKeeper : public QObject {
  Q_OBJECT

public:
  DraftKeeper(FormulaEditor& editor, QString folder, QObject* parent = nullptr);

  /// Loads a draft left by an earlier run, if there is one that reads. True when it was taken up.
  bool takeUp();
  /// The file that the draft belongs to; empty for a formula without one.
  QString filePath() const { return m_filePath; }
  void setFilePath(const QString& path) { m_filePath = path; }
  void discard();
  void writeNow();

signals:
  void cantWrite(const QString& words);

private:
  QString path() const;
  FormulaEditor& m_editor;
  QString m_folder, m_filePath;
  QTimer m_timer;
};

} // namespace butte::app
