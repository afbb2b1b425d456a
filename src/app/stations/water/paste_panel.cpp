#include "stations/water/paste_panel.h"

#include "base/decimal.h"
#include "base/encoding.h"
#include "document/formula_editor.h"
#include "edits/water_edits.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "services/prompts.h"
#include "services/units_shown.h"
#include "water_words.h"
#include "wording/tr.h"

#include <QApplication>
#include <QClipboard>
#include <QComboBox>
#include <QFile>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QVBoxLayout>

namespace butte::app {

namespace {

std::string bareFigure(const std::string& typed) {
  return typed.starts_with('<') ? typed.substr(1) : typed;
}

QString whyText(core::WhyUnplaced why) {
  switch (why) {
  case core::WhyUnplaced::UnknownName:
    return "is";
  case core::WhyUnplaced::Formula:
    return tr("is a spreadsheet's formula, not its figure: put the figure in its place.");
  case core::WhyUnplaced::NoFigure:
    return tr("is no figure; put one in its place, or “n.d.” where it was not measured.");
  case core::WhyUnplaced::Twice:
    return tr("comes a second time; use it instead for");
  case core::WhyUnplaced::BadUnit:
    return tr("can't have this unit or size; it is rather");
  }
  return {};
}

} // namespace

PastePanel::PastePanel(FormulaEditor& editor, Prompts& prompts, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_prompts(prompts), m_text(new QPlainTextEdit),
      m_found(new WrappedLabel), m_placePlace(new QVBoxLayout) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  auto* title = new PlainLabel(tr("Paste the report here, or open it as a table (CSV)"));
  title->setFont(faceOf(15, true));
  m_text->setObjectName("reportText");
  m_text->setPlaceholderText(tr("One line a figure, such as\nCalcium    78    mg/l\nNitrate as N    2.7    "
                                "mg/l\nBoron    <0.05    mg/l"));
  m_text->setTabChangesFocus(true);
  m_found->setObjectName("reportFound");
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
  column->addWidget(m_text, 1);
  column->addWidget(m_found);
  column->addLayout(m_placePlace);
  column->addLayout(row);
  connect(m_text, &QPlainTextEdit::textChanged, this, &PastePanel::read);
  connect(open, &QPushButton::clicked, this, &PastePanel::openFile);
  connect(use, &QPushButton::clicked, this, &PastePanel::take);
  connect(back, &QPushButton::clicked, this, &PastePanel::done);
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
  const auto path = m_prompts.fileToOpen(tr("Open a water report"), {}, tr("Tables (*.csv *.txt *.tsv)"));
  if (path.isEmpty()) return;
  QFile file(path);
  constexpr qint64 most = 8 << 20; // a report is a page, not a library
  if (!QFileInfo(path).isFile() || !file.open(QIODevice::ReadOnly))
    return emit message(tr("It can't be read: %1").arg(file.errorString()));
  if (file.size() > most)
    emit message(tr("The file is larger than 8 MB: only its beginning is read. Is it a water report?"));
  m_text->setPlainText(QString::fromStdString(core::utf8From(file.read(most).toStdString())));
}

void PastePanel::read() {
  m_report = core::readReportText(m_text->toPlainText().toStdString());
  QStringList found;
  for (const auto& row : m_report.report.rows)
    found << QString("%1 %2%3 %4")
                 .arg(QString::fromStdString(words::reportKeyName(row.key)), row.below ? "< " : "",
                      localFigure(row.value), QString::fromStdString(words::reportUnitName(row.unit)));
  if (m_report.report.conductivityMsPerCm)
    found << "EC " + localFigure(*m_report.report.conductivityMsPerCm) + " mS/cm";
  if (m_report.report.ph) found << "pH " + localFigure(*m_report.report.ph);
  m_found->setText(found.isEmpty() ? tr("Nothing understood yet.")
                                   : tr("Understood: %1").arg(found.join(" · ")));
  delete m_places;
  m_keys.clear();
  m_places = new QWidget;
  auto* column = new QVBoxLayout(m_places);
  column->setContentsMargins(0, 0, 0, 0);
  constexpr std::size_t most = 8;
  for (std::size_t i = 0; i < m_report.unplaced.size() && i < most; ++i) {
    const auto& row = m_report.unplaced[i];
    const bool placeable = core::parseDecimal(bareFigure(row.value)).has_value();
    auto* line = new QHBoxLayout;
    auto* said = new PlainLabel(tr("Line %1: “%2” %3 %4 %5")
                                    .arg(row.line)
                                    .arg(QString::fromStdString(row.name), QString::fromStdString(row.value),
                                         QString::fromStdString(row.unit), whyText(row.why)));
    said->setObjectName(QString("unplaced%1").arg(i));
    line->addWidget(said, 1);
    auto* key = new QComboBox;
    key->setObjectName(QString("place%1").arg(i));
    key->addItem(tr("leave it out"), "");
    for (const auto& name : core::waterKeys())
      key->addItem(QString::fromStdString(words::reportKeyName(name)), QString::fromStdString(name));
    key->setVisible(placeable);
    line->addWidget(key);
    column->addLayout(line);
    m_keys.push_back(key);
  }
  if (m_report.unplaced.size() > most)
    column->addWidget(
        new PlainLabel(counted(m_report.unplaced.size() - most, tr("and %1 line more that is not known"),
                               tr("and %1 lines more that are not known"))));
  m_placePlace->addWidget(m_places);
}

void PastePanel::take() {
  auto rows = m_report.report.rows;
  for (std::size_t i = 0; i < m_keys.size(); ++i) {
    const auto key = m_keys[i]->currentData().toString().toStdString();
    if (key.empty()) continue;
    const auto& text = m_report.unplaced[i];
    const bool below = text.value.starts_with('<');
    const auto value = core::parseDecimal(bareFigure(text.value));
    if (!value) continue;
    std::erase_if(rows, [&](const auto& row) { return row.key == key; });
    rows.push_back({key, *value, text.unit.empty() ? "mg/L" : text.unit, below});
  }
  if (rows.empty() && !m_report.report.conductivityMsPerCm) return emit message(tr("Nothing to take yet."));
  auto report = m_report.report;
  report.rows = rows;
  if (!WaterEdits(m_editor).takePasted(m_part, report)) return; // what is wrong was said
  emit message(counted(rows.size(), tr("%1 figure taken."), tr("%1 figures taken.")));
  emit done();
}

} // namespace butte::app
