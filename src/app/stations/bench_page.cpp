#include "stations/bench_page.h"

#include "base/decimal.h"
#include "document/formula_editor.h"
#include "fields/number_field.h"
#include "paint/theme.h"
#include "print/sheet_text.h"
#include "services/units_shown.h"
#include "units/convert.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QScrollBar>
#include <QTextBrowser>
#include <QVBoxLayout>

namespace butte::app {

using exchange::Json;

namespace {
constexpr std::size_t scaleCount = 2;
}

BenchPage::BenchPage(FormulaEditor& editor, UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_units(units), m_sheet(new QTextBrowser) {
  auto* title = new QLabel("Bench sheet");
  title->setFont(faceOf(15, true));
  auto* pdf = new QPushButton("Save as PDF…");
  pdf->setObjectName("sheetPdf");
  pdf->setProperty("primary", true);
  auto* print = new QPushButton("Print…");
  auto* mixed = new QPushButton("Mixed it: keep the batch");
  mixed->setObjectName("mixedIt");
  mixed->setToolTip("Keeps this batch in the book, with the sheet as it stands; weights and readings can be "
                    "filled in there.");
  connect(mixed, &QPushButton::clicked, this, &BenchPage::mixedAsked);
  connect(pdf, &QPushButton::clicked, this, &BenchPage::pdfAsked);
  connect(print, &QPushButton::clicked, this, &BenchPage::printAsked);
  auto* head = new QHBoxLayout;
  head->addWidget(title, 1);
  head->addWidget(mixed);
  head->addWidget(pdf);
  head->addWidget(print);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->addLayout(head);
  for (std::size_t i = 0; i < scaleCount; ++i)
    column->addWidget(makeScaleRow(i));
  m_sheet->setObjectName("sheetPreview");
  m_sheet->setStyleSheet("background: white; color: black; border: 1px solid " + theme().line.name());
  m_sheet->setFont(faceOf(12));
  column->addWidget(m_sheet, 1);
  connect(&editor, &FormulaEditor::changed, this, &BenchPage::refresh);
  connect(&units, &UnitsShown::changed, this, &BenchPage::refresh);
}

NumberField* BenchPage::scaleField(std::size_t index, const char* key, const QString& name,
                                   const char* unit) {
  const bool second = index > 0;
  auto* field = new NumberField({name, unit, 0.0001, 1e6, second});
  field->setObjectName(QString("scale%1_%2").arg(index).arg(key));
  field->setFixedWidth(70);
  field->onTyped = [this, index, key, name, unit](const QString& digits) {
    Json scales = m_editor.json().value("scales", Json::array());
    if (digits.isEmpty()) {
      if (index < scales.size()) scales.erase(index);
    } else {
      while (scales.size() <= index)
        scales.push_back({{"name", scales.empty() ? "bench scale" : "second scale"},
                          {"readability", exchange::amountJson("1", "g")},
                          {"capacity", exchange::amountJson("5000", "g")}});
      scales[index][key] = exchange::amountJson(digits.toStdString(), unit);
      scales[index].erase("name"); // the name follows from what the scale can do
      const auto gramsOf = [&](const char* of) {
        const auto& amount = scales[index][of];
        const auto grams = core::convert(core::parseDecimal(amount["amount"].get<std::string>()).value_or(0),
                                         amount["unit"].get<std::string>(), "g");
        return grams ? *grams : 0.0;
      };
      const double capacity = gramsOf("capacity");
      scales[index]["name"] = (capacity >= 1000 ? core::decimalText(capacity / 1000) + " kg"
                                                : core::decimalText(capacity) + " g") +
                              " scale";
    }
    m_editor.apply({(name + " to " + digits + " " + unit).toStdString(),
                    {{"/scales", m_editor.json().value("scales", Json()), scales}},
                    "scale" + std::to_string(index) + key});
  };
  field->onMessage = [this](const QString& words) { emit message(words); };
  return field;
}

QWidget* BenchPage::makeScaleRow(std::size_t index) {
  auto* box = new QWidget;
  auto* row = new QHBoxLayout(box);
  row->setContentsMargins(0, 0, 0, 0);
  const auto name = index == 0 ? QString("first scale") : QString("second scale");
  ScaleFields fields{scaleField(index, "readability", name + ", smallest step", "g"),
                     scaleField(index, "capacity", name + ", most at once", "g")};
  row->addWidget(new QLabel(index == 0 ? "Scale: shows steps of" : "Second scale (may be empty): steps of"));
  row->addWidget(fields.readability);
  row->addWidget(new QLabel("g, takes up to"));
  row->addWidget(fields.capacity);
  row->addWidget(new QLabel("g"));
  row->addStretch();
  m_scales.push_back(fields);
  return box;
}

void BenchPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  refresh();
}

void BenchPage::refresh() {
  if (!isVisible()) return; // a sheet nobody sees need not be set at every key
  const auto& scales = m_editor.document().scales;
  const auto stored = m_editor.json().value("scales", Json::array());
  for (std::size_t i = 0; i < m_scales.size(); ++i) {
    const bool there = i < stored.size();
    m_scales[i].readability->show(
        there ? QString::fromStdString(core::decimalText(scales[i].readability.grams())) : QString());
    m_scales[i].capacity->show(there ? QString::fromStdString(core::decimalText(scales[i].capacity.grams()))
                                     : QString());
  }
  const int at = m_sheet->verticalScrollBar()->value();
  m_sheet->setHtml(benchSheetHtml(m_editor, m_units, dateOnSheet(QDate::currentDate())));
  m_sheet->verticalScrollBar()->setValue(at);
}

} // namespace butte::app
