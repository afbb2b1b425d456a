#include "stations/water/paste_panel.h"

#include "base/encoding.h"
#include "document/formula_editor.h"
#include "edits/paper_memory.h"
#include "edits/water_edits.h"
#include "page/agreed_report.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "papers/paper_loader.h"
#include "papers/paper_trouble.h"
#include "papers/paper_view.h"
#include "report/answers.h"
#include "services/prompts.h"
#include "services/units_shown.h"
#include "stations/water/reading_rows.h"
#include "water/examine.h"
#include "water_words.h"
#include "wording/tr.h"

#include <QApplication>
#include <QClipboard>
#include <QFile>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QMimeData>
#include <QPlainTextEdit>
#include <QProgressBar>
#include <QPushButton>
#include <QScrollArea>
#include <QScrollBar>
#include <QSignalBlocker>
#include <QStackedWidget>
#include <QTextBlock>
#include <QUrl>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

namespace butte::app {

namespace {

/// Beyond it a paper is no report of a water, and reading would keep a hand waiting.
constexpr qsizetype mostLetters = 400000;

/// Whether what was read can be a water; empty where too little was.
QString balanceText(const core::TypedReport& report) {
  const auto checked = core::examineReport(report);
  if (!checked || checked->cationsMeqPerL <= 0 || checked->anionsMeqPerL <= 0) return {};
  const auto both = tr("Cations %1, anions %2 meq/L")
                        .arg(localFigure(checked->cationsMeqPerL), localFigure(checked->anionsMeqPerL));
  if (!checked->doubts.empty())
    return both + ": " + QString::fromStdString(words::doubtText(checked->doubts.front()));
  const bool meets = std::abs(checked->cationsMeqPerL - checked->anionsMeqPerL) <= checked->allowedMeqPerL;
  return both + ": " + (meets ? tr("it balances") : tr("they differ: an ion is still missing"));
}

/// Lines of a text are where the editor has them before it is scrolled.
class TextLines : public ReadingSource {
public:
  explicit TextLines(const QPlainTextEdit& text) : m_text(text) {}
  int lineTop(int line) const override {
    const int margin = static_cast<int>(m_text.document()->documentMargin()) + m_text.frameWidth();
    return margin + (line - 1) * lineHeight(line);
  }
  int lineHeight(int) const override { return m_text.fontMetrics().lineSpacing(); }

private:
  const QPlainTextEdit& m_text;
};

enum SourcePage { TextPage, PaperPage, WaitPage };

} // namespace

PastePanel::PastePanel(FormulaEditor& editor, BookDesk& desk, Prompts& prompts, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_memory(std::make_unique<PaperMemory>(desk)), m_prompts(prompts),
      m_text(new QPlainTextEdit), m_textLines(std::make_unique<TextLines>(*m_text)), m_paper(new PaperView),
      m_loader(new PaperLoader(this)), m_paperRoom(new QScrollArea), m_rowsRoom(new QScrollArea),
      m_source(new QStackedWidget), m_rows(new ReadingRows), m_progress(new QProgressBar),
      m_take(new QPushButton(tr("Take these figures"))), m_found(new WrappedLabel),
      m_balance(new WrappedLabel), m_recalled(new WrappedLabel) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  auto* title = new WrappedLabel(
      tr("The report as it stands: pasted, dropped, opened as text, PDF or photo, or typed"));
  title->setFont(faceOf(15, true));
  m_found->setObjectName("reportFound");
  m_balance->setObjectName("reportBalance");
  m_recalled->setObjectName("reportRecalled");
  m_recalled->setProperty("soft", true);
  m_recalled->hide();
  column->addWidget(title);
  column->addWidget(makePicture(), 1);
  for (auto* label : {m_recalled, m_found, m_balance})
    column->addWidget(label);
  column->addWidget(makeButtons());
  setAcceptDrops(false); // the window takes what is dropped
  connect(m_text, &QPlainTextEdit::textChanged, this, &PastePanel::read);
  connect(m_rows, &ReadingRows::answered, this, &PastePanel::refresh);
  connect(m_loader, &PaperLoader::progress, m_progress, &QProgressBar::setValue);
  connect(m_loader, &PaperLoader::loaded, this, &PastePanel::showPaper);
  m_text->installEventFilter(this);
}

PastePanel::~PastePanel() = default;

QWidget* PastePanel::makeButtons() {
  auto* box = new QWidget;
  auto* row = new QHBoxLayout(box);
  row->setContentsMargins(0, 0, 0, 0);
  auto* open = new QPushButton(tr("Open a file…"));
  open->setObjectName("openReport");
  m_take->setObjectName("takeReport");
  m_take->setProperty("primary", true);
  auto* back = new QPushButton(tr("Back"));
  back->setObjectName("leaveReport");
  for (auto* button : {m_take, open, back})
    row->addWidget(button);
  row->addStretch();
  connect(open, &QPushButton::clicked, this, &PastePanel::openFile);
  connect(m_take, &QPushButton::clicked, this, &PastePanel::take);
  connect(back, &QPushButton::clicked, this, &PastePanel::leave);
  return box;
}

/// The paper at the left, what was read of it at the right; they scroll together.
QWidget* PastePanel::makePicture() {
  auto* box = new QWidget;
  auto* row = new QHBoxLayout(box);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(0);
  m_text->setObjectName("reportText");
  m_text->setFont(typewriterFaceOf(13)); // papers are laid out in columns of letters
  m_text->setLineWrapMode(QPlainTextEdit::NoWrap);
  m_text->setPlaceholderText(
      tr("Such as\nCalcium    78    mg/l\nNitrate as N    2.7    mg/l\nBoron    <0.05    mg/l"));
  m_text->setTabChangesFocus(true);
  m_paperRoom->setWidget(m_paper);
  m_rowsRoom->setWidget(m_rows);
  for (auto* room : {m_paperRoom, m_rowsRoom}) {
    room->setWidgetResizable(true);
    room->setFrameShape(QFrame::NoFrame);
    room->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  }
  m_source->addWidget(m_text);
  m_source->addWidget(m_paperRoom);
  m_source->addWidget(makeWaiting());
  row->addWidget(m_source, 5);
  row->addWidget(m_rowsRoom, 5);
  connect(m_text->verticalScrollBar(), &QScrollBar::valueChanged, this, [this](int line) {
    m_rowsRoom->verticalScrollBar()->setValue(line * m_text->fontMetrics().lineSpacing());
  });
  connect(m_paperRoom->verticalScrollBar(), &QScrollBar::valueChanged, m_rowsRoom->verticalScrollBar(),
          &QScrollBar::setValue);
  connect(m_rowsRoom->verticalScrollBar(), &QScrollBar::valueChanged, m_paperRoom->verticalScrollBar(),
          &QScrollBar::setValue);
  connect(m_paper, &PaperView::moved, m_rows, &ReadingRows::place);
  return box;
}

QWidget* PastePanel::makeWaiting() {
  auto* box = new QWidget;
  auto* column = new QVBoxLayout(box);
  auto* words =
      new WrappedLabel(tr("The paper is being read. A page of a picture takes some seconds; you can "
                          "go on with other work meanwhile."));
  auto* stop = new QPushButton(tr("Stop"));
  stop->setObjectName("stopReading");
  m_progress->setObjectName("readingProgress");
  m_progress->setAccessibleName(tr("how far the paper is read"));
  column->addStretch();
  column->addWidget(words);
  column->addWidget(m_progress);
  column->addWidget(stop, 0, Qt::AlignLeft);
  column->addStretch();
  connect(stop, &QPushButton::clicked, this, [this] {
    showText();
    read();
    emit message(paperTroubleText(scan::PaperTrouble::Stopped));
  });
  return box;
}

void PastePanel::start(std::size_t part) {
  m_part = part;
  m_name.clear();
  showText();
  const QSignalBlocker once(m_text);
  m_text->clear();
  if (!takeClipboard()) read();
  m_text->setFocus();
}

void PastePanel::start(std::size_t part, const QString& path) {
  m_part = part;
  openPath(path);
}

/// What was copied is most likely the report: a picture, or several lines with figures.
bool PastePanel::takeClipboard() {
  const auto* clip = QApplication::clipboard()->mimeData();
  if (!clip) return false;
  const auto text = clip->text();
  if (clip->hasImage() && text.count('\n') < 2) {
    showWaiting();
    m_loader->load(qvariant_cast<QImage>(clip->imageData()));
    return true;
  }
  if (text.count('\n') < 2) return false;
  m_text->setPlainText(text);
  read();
  return true;
}

/// A picture or a file pasted into the text.
bool PastePanel::eventFilter(QObject* watched, QEvent* event) {
  if (watched != m_text || event->type() != QEvent::KeyPress) return QWidget::eventFilter(watched, event);
  const auto* key = static_cast<QKeyEvent*>(event);
  const auto* clip = QApplication::clipboard()->mimeData();
  if (!key->matches(QKeySequence::Paste) || !clip) return false;
  if (clip->hasUrls() && clip->urls().front().isLocalFile()) {
    openPath(clip->urls().front().toLocalFile());
    return true;
  }
  return clip->hasImage() && takeClipboard();
}

void PastePanel::openFile() {
  const auto path = m_prompts.fileToOpen(tr("Open a water report"), {},
                                         tr("Reports (*.pdf *.png *.jpg *.jpeg *.tif *.tiff *.webp *.bmp "
                                            "*.csv *.txt *.tsv *.md);;All files (*)"));
  if (!path.isEmpty()) openPath(path);
}

void PastePanel::openPath(const QString& path) {
  QFile file(path);
  if (!QFileInfo(path).isFile() || !file.open(QIODevice::ReadOnly))
    return emit message(tr("It can't be read: %1").arg(file.errorString()));
  m_name = QFileInfo(path).fileName();
  if (scan::isPaper(file.peek(4096))) {
    if (file.size() > scan::largestPaper) return emit message(paperTroubleText(scan::PaperTrouble::TooLarge));
    showWaiting();
    return m_loader->load(file.readAll());
  }
  if (file.size() > mostLetters)
    emit message(tr("The file is too long for a water report: only its beginning is read."));
  showText();
  m_text->setPlainText(QString::fromStdString(core::utf8From(file.read(mostLetters).toStdString())));
}

/// While a paper is being read nothing of the one before can be taken for it.
void PastePanel::showWaiting() {
  m_source->setCurrentIndex(WaitPage);
  m_progress->setValue(0);
  m_report = {};
  showReading();
}

/// The text, and no paper that would come in its place later.
void PastePanel::showText() {
  m_loader->stop();
  m_source->setCurrentIndex(TextPage);
  m_rows->standBeside(*m_textLines);
}

void PastePanel::showPaper(const scan::Paper& paper) {
  if (paper.trouble) {
    showText();
    read();
    return emit message(paperTroubleText(*paper.trouble));
  }
  m_source->setCurrentIndex(PaperPage);
  m_paper->show(paper);
  m_rows->standBeside(*m_paper, [this](const reading::Place& place, const std::string& figure, int height) {
    return m_paper->around(place, figure, height);
  });
  m_report = paper.isPicture ? reading::agreedReport(paper.readings)
                             : reading::readReportText(paper.readings.front().text);
  if (paper.pagesLeftOut > 0) emit message(tr("Only the first %1 pages were read.").arg(paper.pages.size()));
  showReading();
}

/// A report's length at each key; a longer text behind the window's thread, and nothing is taken meanwhile.
void PastePanel::read() {
  if (m_source->currentIndex() == PaperPage) return;
  constexpr std::size_t readAtOnce = 20000; // letters
  auto text = m_text->toPlainText().left(mostLetters).toStdString();
  m_reader.cancel();
  if (text.size() <= readAtOnce) {
    m_report = reading::readReportText(text);
    return showReading();
  }
  m_take->setEnabled(false);
  m_found->setText(tr("Reading…"));
  m_reader.start<reading::ReportText>([text = std::move(text)] { return reading::readReportText(text); },
                                      [this](reading::ReportText read) {
                                        if (m_source->currentIndex() != TextPage) return;
                                        m_report = std::move(read);
                                        showReading();
                                      });
}

/// What was read, and what was said of such papers before.
void PastePanel::showReading() {
  m_take->setEnabled(true);
  m_rows->show(m_report);
  const auto known = m_memory->answers(m_report);
  const auto recalled = reading::recalled(m_report, known);
  const bool any = std::count(recalled.said.begin(), recalled.said.end(), true) > 0;
  m_recalled->setVisible(any);
  if (any) {
    m_rows->recall(recalled);
    m_recalled->setText(counted(std::count(recalled.said.begin(), recalled.said.end(), true),
                                tr("%1 line is answered as you did for this layout before."),
                                tr("%1 lines are answered as you did for this layout before.")));
  }
  markSource();
  refresh();
}

core::TypedReport PastePanel::report() const {
  return reading::withAnswers(m_report, m_rows->answers().rows);
}

/// What was read, what asks, and whether it can be a water: as one answers.
void PastePanel::refresh() {
  const auto now = report();
  const auto figures = now.rows.size() + now.conductivityMsPerCm.has_value() + now.ph.has_value();
  const auto asks = m_rows->open();
  QStringList said;
  if (figures > 0) said << counted(figures, tr("%1 figure read"), tr("%1 figures read"));
  if (asks > 0)
    said << counted(static_cast<std::size_t>(asks), tr("%1 line needs your answer"),
                    tr("%1 lines need your answer"));
  m_found->setText(said.isEmpty() ? tr("Nothing recognised yet.") : said.join(", ") + ".");
  m_balance->setText(figures > 0 ? balanceText(now) : QString());
  m_balance->setVisible(!m_balance->text().isEmpty());
}

/// Underlines what was read, and shades what asks, where it stands.
void PastePanel::markSource() {
  if (m_source->currentIndex() == PaperPage) return m_paper->mark(m_report);
  QList<QTextEdit::ExtraSelection> marks;
  const auto bytes = m_text->toPlainText().toStdString();
  const auto mark = [&](const reading::Place& place, bool asks) {
    if (place.to > bytes.size()) return;
    QTextEdit::ExtraSelection one;
    one.cursor = QTextCursor(m_text->document());
    const auto at = [&](std::size_t byte) {
      const auto block = m_text->document()->findBlockByNumber(place.line - 1);
      const auto begin = bytes.rfind('\n', byte == 0 ? 0 : byte - 1);
      const auto from = begin == std::string::npos ? 0 : begin + 1;
      return block.position() +
             static_cast<int>(
                 QString::fromUtf8(bytes.data() + from, static_cast<qsizetype>(byte - from)).size());
    };
    one.cursor.setPosition(at(place.from));
    one.cursor.setPosition(at(place.to), QTextCursor::KeepAnchor);
    if (asks) one.format.setBackground(theme().amberFill);
    one.format.setFontUnderline(true);
    one.format.setUnderlineColor(asks ? theme().amber : theme().accent);
    marks << one;
  };
  constexpr std::size_t mostMarks = 500;
  for (std::size_t i = 0; i < m_report.read.size() && i < mostMarks; ++i)
    mark(m_report.read[i].place, false);
  for (std::size_t i = 0; i < m_report.unplaced.size() && i < mostMarks; ++i) {
    if (m_report.unplaced[i].why != reading::WhyUnplaced::NotNeeded) mark(m_report.unplaced[i].place, true);
  }
  m_text->setExtraSelections(marks);
}

void PastePanel::leave() {
  showText();
  emit done();
}

void PastePanel::take() {
  const auto now = report();
  if (now.rows.empty() && !now.conductivityMsPerCm) return emit message(tr("Nothing to take yet."));
  m_memory->keep(m_name.isEmpty() ? tr("a report") : m_name, m_report, m_rows->answers());
  if (!WaterEdits(m_editor).takePasted(m_part, now)) return; // what is wrong was said
  emit message(counted(now.rows.size(), tr("%1 figure taken."), tr("%1 figures taken.")));
  leave();
}

} // namespace butte::app
