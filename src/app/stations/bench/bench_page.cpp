#include "stations/bench/bench_page.h"

#include "base/decimal.h"
#include "document/formula_editor.h"
#include "edits/formula_edits.h"
#include "fields/number_field.h"
#include "paint/closed_text.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "print/sheet_text.h"
#include "refresh/while_seen.h"
#include "services/units_shown.h"
#include "units/convert.h"
#include "wording/tr.h"

#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QScrollBar>
#include <QTextBrowser>
#include <QVBoxLayout>

namespace butte::app {

namespace {
constexpr std::size_t scaleCount = 2;
constexpr int restMilliseconds = 120; ///< the paper follows when the typing rests
} // namespace

BenchPage::BenchPage(FormulaEditor& editor, UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_units(units),
      m_spoons(new QCheckBox(tr("Level measuring spoons, where no scale comes nearer"))),
      m_sheet(new ClosedTextView) {
  auto* title = new PlainLabel(tr("Bench sheet"));
  title->setFont(faceOf(15, true));
  auto* pdf = new QPushButton(tr("Save as PDF…"));
  pdf->setObjectName("sheetPdf");
  pdf->setProperty("primary", true);
  auto* print = new QPushButton(tr("Print…"));
  auto* mixed = new QPushButton(tr("Mixed it: keep the batch"));
  mixed->setObjectName("mixedIt");
  mixed->setToolTip(
      tr("Keeps this batch in the book, with the sheet as it stands; weights and readings can be "
         "filled in there."));
  connect(mixed, &QPushButton::clicked, this, &BenchPage::mixedAsked);
  connect(pdf, &QPushButton::clicked, this, &BenchPage::pdfAsked);
  connect(print, &QPushButton::clicked, this, &BenchPage::printAsked);
  auto* weigh = new QPushButton(tr("Weigh it here, step by step"));
  weigh->setObjectName("weighHere");
  weigh->setToolTip(
      tr("One thing at a time, in large figures; everything is in the book at once. What was begun "
         "goes on where it stood."));
  connect(weigh, &QPushButton::clicked, this, &BenchPage::runAsked);
  auto* bags = new QPushButton(tr("Bags…"));
  bags->setObjectName("weighBags");
  bags->setToolTip(
      tr("Weighs several bags of each salt for later, each for one fill of its vessel, with their "
         "labels and how even they are"));
  connect(bags, &QPushButton::clicked, this, &BenchPage::bagsAsked);
  auto* practice = new QPushButton(tr("Practice"));
  practice->setObjectName("practiceRun");
  practice->setToolTip(
      tr("The same bench with a scale and pens that are none, and with mishaps that nobody "
         "announces; in the end it shows each moment again. Nothing of it becomes a batch."));
  connect(practice, &QPushButton::clicked, this, &BenchPage::practiceAsked);
  auto* head = new FlowRow;
  head->addWidget(title);
  head->addStretch();
  head->addWidget(weigh);
  head->addWidget(bags);
  head->addWidget(practice);
  head->addWidget(mixed);
  head->addWidget(pdf);
  head->addWidget(print);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->addLayout(head);
  for (std::size_t i = 0; i < scaleCount; ++i)
    column->addWidget(makeScaleRow(i));
  column->addWidget(m_spoons, 0, Qt::AlignLeft);
  m_spoons->setObjectName("levelSpoons");
  m_spoons->setToolTip(
      tr("Tells dry products in level tablespoons, teaspoons and eighths of them, with how far that may be "
         "off. A product's own spoon is learnt from ten of them: on its page"));
  connect(m_spoons, &QCheckBox::clicked, this, [this](bool on) { FormulaEdits(m_editor).setSpoons(on); });
  m_sheet->setObjectName("sheetPreview");
  m_sheet->setStyleSheet("background: white; color: black; border: 1px solid " + theme().line.name());
  m_sheet->setFont(faceOf(12));
  column->addWidget(m_sheet, 1);
  auto* fresh = new WhileSeen(this, [this] { refresh(); });
  connect(&editor, &FormulaEditor::changed, fresh, &WhileSeen::outdate);
  connect(&units, &UnitsShown::changed, fresh, &WhileSeen::outdate);
  m_rest.setSingleShot(true);
  m_rest.setInterval(restMilliseconds);
  connect(&m_rest, &QTimer::timeout, this, &BenchPage::layOut);
}

NumberField* BenchPage::scaleField(std::size_t index, bool readability, const QString& name) {
  auto* field = new NumberField({name, "", 0.000001, 1e6, true});
  field->asked = [this, index] { return AskedUnit{unitOf(index), {}}; };
  field->setObjectName(QString("scale%1_%2").arg(index).arg(readability ? "readability" : "capacity"));
  field->setFixedWidth(70);
  field->onTyped = [this, index, readability](const QString& digits) {
    FormulaEdits edits(m_editor);
    if (readability)
      edits.setScaleReadability(index, typed(digits, QString::fromStdString(unitOf(index))));
    else
      edits.setScaleCapacity(index, typed(digits, QString::fromStdString(unitOf(index))));
  };
  field->onMessage = [this](const QString& words) { emit message(words); };
  return field;
}

/// Of a scale that nobody stated yet: what the person weighs in.
std::string BenchPage::unitOf(std::size_t scale) const {
  const FormulaEdits edits(m_editor);
  if (scale >= edits.scaleCount()) return m_units.massUnit().toStdString();
  const auto unit = edits.scaleReadability(scale).unit;
  return unit == "oz" || unit == "lb" ? unit : "g";
}

QWidget* BenchPage::makeScaleRow(std::size_t index) {
  auto* box = new QWidget;
  auto* row = new QHBoxLayout(box);
  row->setContentsMargins(0, 0, 0, 0);
  const auto name = index == 0 ? tr("first scale") : tr("second scale");
  ScaleFields fields{scaleField(index, true, tr("%1, smallest step").arg(name)),
                     scaleField(index, false, tr("%1, most at once").arg(name))};
  row->addWidget(
      new PlainLabel(index == 0 ? tr("Scale: shows steps of") : tr("Second scale, if any: steps of")));
  row->addWidget(fields.readability);
  fields.unit = new QComboBox;
  fields.unit->setObjectName(QString("scale%1_unit").arg(index));
  fields.unit->setAccessibleName(tr("%1, what its display shows").arg(name));
  fields.unit->setToolTip(tr("What its display shows; the sheet has its digits"));
  fields.unit->addItems({"g", "oz", "lb"});
  connect(fields.unit, &QComboBox::textActivated, this,
          [this, index](const QString& unit) { FormulaEdits(m_editor).setScaleUnit(index, unit); });
  row->addWidget(fields.unit);
  row->addWidget(new PlainLabel(tr("takes up to")));
  row->addWidget(fields.capacity);
  fields.unitName = new PlainLabel;
  row->addWidget(fields.unitName);
  row->addStretch();
  m_scales.push_back(fields);
  return box;
}

void BenchPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  refresh();
  layOut();
}

void BenchPage::refresh() {
  m_spoons->setChecked(m_editor.document().spoons);
  const auto stated = FormulaEdits(m_editor).scaleCount();
  for (std::size_t i = 0; i < m_scales.size(); ++i) {
    const bool there = i < stated;
    const auto unit = QString::fromStdString(unitOf(i));
    m_scales[i].unit->setCurrentText(unit);
    m_scales[i].unitName->setText(unit);
    const FormulaEdits edits(m_editor);
    m_scales[i].readability->show(there ? shownIn(edits.scaleReadability(i), unit) : QString());
    m_scales[i].capacity->show(there ? shownIn(edits.scaleCapacity(i), unit) : QString());
  }
  m_rest.start();
}

/// Anew only when something on it changed.
void BenchPage::layOut() {
  m_rest.stop();
  const auto html = benchSheetHtml(m_editor, m_units, dateOnSheet(QDate::currentDate()));
  if (html == m_html) return;
  m_html = html;
  const int at = m_sheet->verticalScrollBar()->value();
  m_sheet->setHtml(html);
  m_sheet->verticalScrollBar()->setValue(at);
}

} // namespace butte::app
