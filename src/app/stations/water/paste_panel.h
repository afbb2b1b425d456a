#pragma once
#include "report/report_text.h"

#include <QWidget>

class QLabel;
class QPlainTextEdit;
class QScrollArea;

namespace butte::app {

class FormulaEditor;
class ReadingRows;
struct Prompts;

/// A report as text, from the clipboard or a file, and beside it what was read of it, line by line. What is
/// not clear asks at its place; nothing is taken before the grower says so.
class PastePanel : public QWidget {
  Q_OBJECT

public:
  PastePanel(FormulaEditor& editor, Prompts& prompts, QWidget* parent = nullptr);
  void start(std::size_t part);

signals:
  void done();
  void message(const QString& words);

private:
  QWidget* makePicture();
  void read();
  void refresh();
  void markSource();
  void openFile();
  void take();
  core::TypedReport report() const;
  FormulaEditor& m_editor;
  Prompts& m_prompts;
  std::size_t m_part = 0;
  QPlainTextEdit* m_text;
  ReadingRows* m_rows;
  QScrollArea* m_rowsRoom;
  QLabel *m_found, *m_balance;
  reading::ReportText m_report;
};

} // namespace butte::app
