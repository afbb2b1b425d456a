#include "stations/formula/label_paper.h"

#include "base/encoding.h"
#include "paint/wrapped_label.h"
#include "papers/paper_loader.h"
#include "papers/paper_trouble.h"
#include "papers/paper_view.h"
#include "reading_words.h"
#include "services/prompts.h"
#include "services/units_shown.h"
#include "wording/tr.h"

#include <QFile>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QPlainTextEdit>
#include <QProgressBar>
#include <QPushButton>
#include <QScrollArea>
#include <QSignalBlocker>
#include <QVBoxLayout>

namespace butte::app {

namespace {

constexpr qsizetype mostLetters = 20000; ///< a bag has no room for more

} // namespace

LabelPaper::LabelPaper(Prompts& prompts, QWidget* parent)
    : QWidget(parent), m_prompts(prompts), m_text(new QPlainTextEdit), m_said(new WrappedLabel),
      m_room(new QScrollArea), m_paper(new PaperView), m_loader(new PaperLoader(this)),
      m_progress(new QProgressBar), m_open(new QPushButton(tr("From a photo or PDF…"))),
      m_stop(new QPushButton(tr("Stop"))), m_asText(new QPushButton(tr("As text"))) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  m_text->setObjectName("labelText");
  m_text->setAccessibleName(tr("the label as text"));
  m_text->setPlaceholderText(
      tr("Paste or type the label as it stands on the bag, or fill in its figures below"));
  m_text->setFixedHeight(3 * m_text->fontMetrics().lineSpacing() + 12);
  m_text->setTabChangesFocus(true);
  m_said->setObjectName("labelRead");
  m_said->hide();
  m_paper->setObjectName("labelPicture");
  m_room->setWidget(m_paper);
  m_room->setWidgetResizable(true);
  m_room->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  m_room->setFixedHeight(220);
  column->addWidget(m_text);
  column->addWidget(m_room);
  column->addWidget(makeButtons());
  column->addWidget(m_said);
  connect(m_text, &QPlainTextEdit::textChanged, this, &LabelPaper::readText);
  connect(m_loader, &PaperLoader::progress, m_progress, &QProgressBar::setValue);
  connect(m_loader, &PaperLoader::loaded, this, &LabelPaper::showPaper);
}

QWidget* LabelPaper::makeButtons() {
  auto* box = new QWidget;
  auto* row = new QHBoxLayout(box);
  row->setContentsMargins(0, 0, 0, 0);
  m_open->setObjectName("openLabel");
  m_stop->setObjectName("stopLabel");
  m_progress->setObjectName("labelProgress");
  m_progress->setAccessibleName(tr("how far the label is read"));
  for (auto* widget : std::initializer_list<QWidget*>{m_open, m_asText, m_progress, m_stop})
    row->addWidget(widget);
  row->addStretch();
  connect(m_open, &QPushButton::clicked, this, &LabelPaper::openFile);
  connect(m_stop, &QPushButton::clicked, this, [this] {
    m_loader->stop();
    showWaiting(false);
  });
  connect(m_asText, &QPushButton::clicked, this, [this] { showPicture(false); });
  showWaiting(false);
  showPicture(false);
  return box;
}

void LabelPaper::showWaiting(bool on) {
  m_open->setEnabled(!on);
  m_progress->setVisible(on);
  m_stop->setVisible(on);
}

/// The picture stands where the text does; the text can be had instead, to be mended by hand.
void LabelPaper::showPicture(bool on) {
  m_room->setVisible(on);
  m_asText->setVisible(on);
  m_text->setVisible(!on);
}

void LabelPaper::clear() {
  m_loader->stop();
  showWaiting(false);
  m_text->clear();
  showPicture(false);
  m_said->hide();
}

void LabelPaper::openFile() {
  const auto path = m_prompts.fileToOpen(
      tr("Open a label"), {},
      tr("Labels (*.pdf *.png *.jpg *.jpeg *.tif *.tiff *.webp *.bmp *.txt);;All files (*)"));
  if (path.isEmpty()) return;
  QFile file(path);
  m_said->show();
  if (!QFileInfo(path).isFile() || !file.open(QIODevice::ReadOnly))
    return m_said->setText(tr("It can't be read: %1").arg(file.errorString()));
  if (!scan::isPaper(file.peek(4096)))
    return m_text->setPlainText(QString::fromStdString(core::utf8From(file.read(mostLetters).toStdString())));
  if (file.size() > scan::largestPaper)
    return m_said->setText(paperTroubleText(scan::PaperTrouble::TooLarge));
  m_said->hide();
  m_progress->setValue(0);
  showWaiting(true);
  m_loader->load(file.readAll());
}

void LabelPaper::readText() {
  showPicture(false);
  m_said->setVisible(!m_text->toPlainText().trimmed().isEmpty());
  const auto label = reading::readLabelText(m_text->toPlainText().left(mostLetters).toStdString());
  say(label, {});
  if (!label.rows.empty()) emit understood(label);
}

void LabelPaper::showPaper(const scan::Paper& paper) {
  showWaiting(false);
  m_said->show();
  if (paper.trouble) return m_said->setText(paperTroubleText(*paper.trouble));
  {
    const QSignalBlocker shownOnly(m_text);
    m_text->setPlainText(QString::fromStdString(paper.readings.front().text));
  }
  const auto read = paper.isPicture
                        ? reading::agreedLabel(paper.readings)
                        : reading::AgreedLabel{reading::readLabelText(paper.readings.front().text), {}};
  showPicture(true);
  m_paper->show(paper);
  std::vector<reading::Place> sure, asks;
  for (const auto& line : read.label.read)
    if (!line.key.empty()) sure.push_back({line.line, 0, 0});
  for (const auto& figure : read.blurred)
    if (figure.line > 0) asks.push_back({figure.line, 0, 0});
  m_paper->markLines(sure, asks);
  say(read.label, read.blurred);
  if (!read.label.rows.empty()) emit understood(read.label);
}

void LabelPaper::say(const reading::LabelText& label, const std::vector<reading::BlurredFigure>& blurred) {
  QStringList said;
  for (const auto& figure : blurred) {
    QStringList values;
    for (const double percent : figure.percent)
      values << localFigure(percent);
    said << tr("hard to read, type it below: %1 (%2 %)")
                .arg(QString::fromStdString(figure.key), values.join(tr(" or ")));
  }
  for (const auto& found : label.doubts)
    said << QString::fromStdString(words::labelDoubtText(found));
  for (const auto& line : label.unplaced)
    said << tr("not read: “%1”").arg(QString::fromStdString(line).left(60));
  if (label.rows.empty())
    return m_said->setText(said.isEmpty() ? tr("Nothing recognised as a label yet.") : said.join("; "));
  for (const auto& [metal, agent] : label.chelates)
    said << tr("%1 is held by %2").arg(QString::fromStdString(metal), QString::fromStdString(agent));
  said.prepend(counted(label.rows.size(), tr("%1 figure read: check it"), tr("%1 figures read: check them")));
  m_said->setText(said.join("; ") + ".");
}

} // namespace butte::app
