#pragma once
#include "water/report_text.h"

#include <QWidget>

class QComboBox;
class QLabel;
class QPlainTextEdit;
class QVBoxLayout;

namespace butte::app {

class FormulaEditor;
struct Prompts;

/// A report as text, from the clipboard or a file: what was understood is shown, what was not is placed by
/// hand, and nothing is taken before the grower says so.
class PastePanel : public QWidget {
  Q_OBJECT

public:
  PastePanel(FormulaEditor& editor, Prompts& prompts, QWidget* parent = nullptr);
  void start(std::size_t part);

signals:
  void done();
  void message(const QString& words);

private:
  void read();
  void openFile();
  void take();
  FormulaEditor& m_editor;
  Prompts& m_prompts;
  std::size_t m_part = 0;
  QPlainTextEdit* m_text;
  QLabel* m_found;
  QVBoxLayout* m_placePlace;
  QWidget* m_places = nullptr;
  core::ReportText m_report;
  std::vector<QComboBox*> m_keys;
};

} // namespace butte::app
