#pragma once
#include "label/label_text.h"
#include "page/agreed_label.h"
#include "scan/paper_reader.h"

#include <QWidget>

class QLabel;
class QPlainTextEdit;
class QProgressBar;
class QPushButton;
class QScrollArea;

namespace butte::app {

class PaperLoader;
class PaperView;
struct Prompts;

/// A fertilizer's label as it stands on the bag: as text, pasted or typed, or as a photo or a PDF, which is
/// shown with what was read of it. Says what was read, what was not, and what is hard to read.
class LabelPaper : public QWidget {
  Q_OBJECT

public:
  explicit LabelPaper(Prompts& prompts, QWidget* parent = nullptr);
  void clear();

signals:
  /// Figures to be looked at.
  void understood(const butte::reading::LabelText& label);

private:
  QWidget* makeButtons();
  void openFile();
  void readText();
  void showPaper(const scan::Paper& paper);
  void say(const reading::LabelText& label, const std::vector<reading::BlurredFigure>& blurred);
  void showWaiting(bool on);
  void showPicture(bool on);

  Prompts& m_prompts;
  QPlainTextEdit* m_text;
  QLabel* m_said;
  QScrollArea* m_room;
  PaperView* m_paper;
  PaperLoader* m_loader;
  QProgressBar* m_progress;
  QPushButton *m_open, *m_stop, *m_asText;
};

} // namespace butte::app
