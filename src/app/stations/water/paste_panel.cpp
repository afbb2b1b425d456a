#include "stations/water/paste_panel.h"

#include "base/encoding.h"
#include "document/formula_editor.h"
#include "edits/water_edits.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
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
#include <QLabel>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QScrollBar>
#include <QTextBlock>
#include <QVBoxLayout>
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
  return both + ": " + (meets ? tr("it balances") : tr("they do not meet; an ion is not there yet"));
}

} // namespace

PastePanel::PastePanel(FormulaEditor& editor, Prompts& prompts, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_prompts(prompts), m_text(new QPlainTextEdit),
      m_rows(new ReadingRows(m_text)), m_rowsRoom(new QScrollArea), m_found(new WrappedLabel),
      m_balance(new WrappedLabel) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  auto* title = new PlainLabel(tr("The report as it stands: paste it, open it as text or table, or type it"));
  title->setFont(faceOf(15, true));
  m_found->setObjectName("reportFound");
  m_balance->setObjectName("reportBalance");
  auto* row = new QHBoxLayout;
  auto* open = new QPushButton(tr("Open a file…"));
  open->setObjectName("openReport");
  auto* use = new QPushButton(tr("Take these figures"));
  use->setObjectName("takeReport");
  use->setProperty("primary", true);
  auto* back = new QPushButton(tr("Back"));
  back->setObjectName("leaveReport");
  for (auto* button : {use, open, back})
    row->addWidget(button);
  row->addStretch();
  column->addWidget(title);
  column->addWidget(makePicture(), 1);
  column->addWidget(m_found);
  column->addWidget(m_balance);
  column->addLayout(row);
  connect(m_text, &QPlainTextEdit::textChanged, this, &PastePanel::read);
  connect(m_rows, &ReadingRows::answered, this, &PastePanel::refresh);
  connect(open, &QPushButton::clicked, this, &PastePanel::openFile);
  connect(use, &QPushButton::clicked, this, &PastePanel::take);
  connect(back, &QPushButton::clicked, this, &PastePanel::done);
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
  m_rowsRoom->setWidget(m_rows);
  m_rowsRoom->setWidgetResizable(true);
  m_rowsRoom->setFrameShape(QFrame::NoFrame);
  m_rowsRoom->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  row->addWidget(m_text, 5);
  row->addWidget(m_rowsRoom, 4);
  connect(m_text->verticalScrollBar(), &QScrollBar::valueChanged, this, [this](int line) {
    m_rowsRoom->verticalScrollBar()->setValue(line * m_text->fontMetrics().lineSpacing());
  });
  return box;
}

void PastePanel::start(std::size_t part) {
  m_part = part;
  const auto clip = QApplication::clipboard()->text();
  // What was copied is most likely the report: several lines with figures.
  m_text->setPlainText(clip.count('\n') >= 2 ? clip : QString());
  read();
  m_text->setFocus();
}

void PastePanel::openFile() {
  const auto path =
      m_prompts.fileToOpen(tr("Open a water report"), {}, tr("Tables and text (*.csv *.txt *.tsv *.md)"));
  if (path.isEmpty()) return;
  QFile file(path);
  if (!QFileInfo(path).isFile() || !file.open(QIODevice::ReadOnly))
    return emit message(tr("It can't be read: %1").arg(file.errorString()));
  if (file.size() > mostLetters)
    emit message(tr("The file is too long for a water report: only its beginning is read."));
  m_text->setPlainText(QString::fromStdString(core::utf8From(file.read(mostLetters).toStdString())));
}

void PastePanel::read() {
  m_report = reading::readReportText(m_text->toPlainText().left(mostLetters).toStdString());
  m_rows->show(m_report);
  markSource();
  refresh();
}

core::TypedReport PastePanel::report() const {
  return reading::withAnswers(m_report, m_rows->answers());
}

/// What was read, what asks, and whether it can be a water: as one answers.
void PastePanel::refresh() {
  const auto now = report();
  const auto figures = now.rows.size() + now.conductivityMsPerCm.has_value() + now.ph.has_value();
  const auto asks = m_rows->open();
  QStringList said;
  if (figures > 0) said << counted(figures, tr("%1 figure read"), tr("%1 figures read"));
  if (asks > 0) said << counted(static_cast<std::size_t>(asks), tr("%1 line asks"), tr("%1 lines ask"));
  m_found->setText(said.isEmpty() ? tr("Nothing understood yet.") : said.join(", ") + ".");
  m_balance->setText(figures > 0 ? balanceText(now) : QString());
  m_balance->setVisible(!m_balance->text().isEmpty());
}

/// Underlines what was read, and shades what asks, where it stands.
void PastePanel::markSource() {
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

void PastePanel::take() {
  const auto now = report();
  if (now.rows.empty() && !now.conductivityMsPerCm) return emit message(tr("Nothing to take yet."));
  if (!WaterEdits(m_editor).takePasted(m_part, now)) return; // what is wrong was said
  emit message(counted(now.rows.size(), tr("%1 figure taken."), tr("%1 figures taken.")));
  emit done();
}

} // namespace butte::app
