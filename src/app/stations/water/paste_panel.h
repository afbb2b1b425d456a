#pragma once
#include "document/background.h"
#include "papers/reading_source.h"
#include "report/report_text.h"
#include "scan/paper_reader.h"

#include <QWidget>
#include <memory>

class QLabel;
class QPlainTextEdit;
class QProgressBar;
class QPushButton;
class QScrollArea;
class QStackedWidget;

namespace butte::app {

class BookDesk;
class FormulaEditor;
class PaperLoader;
class PaperMemory;
class PaperView;
class ReadingRows;
struct Prompts;

/// A report as text, as a PDF or as a picture, from the clipboard or a file, and beside it what was read of
/// it, line by line. What is not clear asks at its place; nothing is taken before the grower says so. What
/// was answered is remembered for papers of the same layout.
class PastePanel : public QWidget {
  Q_OBJECT

public:
  PastePanel(FormulaEditor& editor, BookDesk& desk, Prompts& prompts, QWidget* parent = nullptr);
  ~PastePanel() override;
  /// Begins with what is on the clipboard, where that is most likely a report.
  void start(std::size_t part);
  /// Begins with a file.
  void start(std::size_t part, const QString& path);

signals:
  void done();
  void message(const QString& words);

protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

private:
  QWidget* makePicture();
  QWidget* makeWaiting();
  QWidget* makeButtons();
  void read();
  void refresh();
  void markSource();
  void openFile();
  void openPath(const QString& path);
  bool takeClipboard();
  void showWaiting();
  void showText();
  void showPaper(const scan::Paper& paper);
  void showReading();
  void leave();
  void take();
  core::TypedReport report() const;

  FormulaEditor& m_editor;
  std::unique_ptr<PaperMemory> m_memory;
  Prompts& m_prompts;
  std::size_t m_part = 0;
  QString m_name; ///< of the file
  QPlainTextEdit* m_text;
  std::unique_ptr<ReadingSource> m_textLines;
  PaperView* m_paper;
  PaperLoader* m_loader;
  QScrollArea *m_paperRoom, *m_rowsRoom;
  QStackedWidget* m_source;
  ReadingRows* m_rows;
  QProgressBar* m_progress;
  QPushButton* m_take;
  QLabel *m_found, *m_balance, *m_recalled;
  reading::ReportText m_report;
  Background m_reader;
};

} // namespace butte::app
