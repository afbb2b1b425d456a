#include "stations/book/batch_panel.h"

#include "document/batch_record.h"
#include "document/book_desk.h"
#include "edits/edits.h"
#include "fields/number_field.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "print/sheet_text.h"
#include "refresh/while_seen.h"
#include "services/units_shown.h"
#include "stations/book/batch_list.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "words.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>
#include <cmath>

namespace butte::app {

BatchPanel::BatchPanel(BookDesk& desk, UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_desk(desk), m_edits(desk), m_units(units), m_column(new QVBoxLayout(this)) {
  m_column->setContentsMargins(0, 0, 0, 0);
  connect(&units, &UnitsShown::changed, this, [this] {
    if (!m_uid.empty()) build();
  });
}

void BatchPanel::show(const std::string& uid) {
  m_uid = uid;
  if (!uid.empty() && load()) return build();
  m_uid.clear();
  delete m_content;
  m_content = nullptr;
  m_lines.clear();
}

bool BatchPanel::load() {
  return m_edits.load(m_uid);
}

void BatchPanel::refresh() {
  if (m_setting || m_uid.empty()) return;
  const auto lines = m_edits.batch().weights.size();
  if (!load()) return;
  if (lines != m_edits.batch().weights.size())
    build();
  else
    fill();
}

void BatchPanel::build() {
  delete m_content;
  m_lines.clear();
  auto* area = new QScrollArea;
  area->setWidgetResizable(true);
  area->setFrameShape(QFrame::NoFrame);
  area->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  auto* inside = new QWidget;
  auto* column = new QVBoxLayout(inside);
  column->setContentsMargins(0, 0, 8, 0);
  column->setSpacing(4);
  m_head = new WrappedLabel;
  m_head->setObjectName("batchHead");
  m_head->setTextFormat(Qt::RichText);
  column->addWidget(m_head);
  for (std::size_t i = 0; i < m_edits.batch().weights.size(); ++i)
    addLine(column, i);
  addReadings(column);
  column->addStretch();
  area->setWidget(inside);
  m_content = new QWidget;
  auto* outer = new QVBoxLayout(m_content);
  outer->setContentsMargins(0, 0, 0, 0);
  outer->addWidget(area, 1);
  addButtons(outer);
  m_column->addWidget(m_content);
  inside->setEnabled(true);
  for (auto* field : inside->findChildren<QLineEdit*>())
    field->setReadOnly(m_desk.isReadOnly());
  fill();
}

void BatchPanel::addLine(QVBoxLayout* column, std::size_t index) {
  const auto& weight = m_edits.batch().weights[index];
  const auto name = qtext(weight.productName);
  auto* top = new QHBoxLayout;
  auto* label = new WrappedLabel(
      QString("<b>%1</b>%2")
          .arg(name.toHtmlEscaped(), weight.tank.empty()
                                         ? tr(" · apart")
                                         : tr(" · tank %1").arg(qtext(weight.tank).toHtmlEscaped())));
  label->setTextFormat(Qt::RichText);
  auto* planned = new PlainLabel(tr("plan %1").arg(m_units.text(core::Mass::fromGrams(weight.plannedGrams))));
  top->addWidget(label, 1);
  top->addWidget(planned, 0, Qt::AlignTop);
  column->addLayout(top);
  auto* row = new QHBoxLayout;
  Line line;
  // Typed in the unit that the plan is shown in: kilograms for large weights, grams for small ones.
  const auto shown = m_units.text(core::Mass::fromGrams(weight.plannedGrams));
  const auto unit = shown.section(' ', -1);
  line.actual = new NumberField({tr("%1 on the scale").arg(name), unit, 0, 1e7, true});
  line.actual->setObjectName(QString("actual%1").arg(index));
  line.actual->setPlaceholderText(tr("scale"));
  line.actual->setFixedWidth(82);
  line.actual->onTyped = [this, index, unit](const QString& digits) {
    keep([&] { return m_edits.setActual(index, {digits.toStdString(), unit.toStdString()}); });
  };
  line.actual->onMessage = [this](const QString& words) { emit message(words); };
  line.lot = new QLineEdit;
  line.lot->setObjectName(QString("lot%1").arg(index));
  line.lot->setPlaceholderText(tr("lot"));
  line.lot->setAccessibleName(tr("lot of %1").arg(name));
  connect(line.lot, &QLineEdit::textEdited, this,
          [this, index](const QString& text) { keep([&] { return m_edits.setLot(index, text); }); });
  line.deviation = new PlainLabel;
  line.deviation->setFixedWidth(70);
  row->addWidget(line.actual);
  row->addWidget(new PlainLabel(unit));
  row->addWidget(line.deviation);
  row->addWidget(line.lot, 1);
  column->addLayout(row);
  m_lines.push_back(line);
}

void BatchPanel::addReadings(QVBoxLayout* column) {
  auto* row = new FlowRow;
  m_ec = new NumberField({tr("EC read"), "", 0, 70000, true});
  m_ec->asked = [this] { return AskedUnit{m_units.conductivityUnit().toStdString(), {}}; };
  m_ec->setObjectName("batchEc");
  m_ec->onTyped = [this](const QString& digits) {
    keep([&] { return m_edits.setConductivityRead(typed(digits, m_units.conductivityUnit())); });
  };
  m_ph = new NumberField({tr("pH read"), "", 0, 14, true});
  m_ph->setObjectName("batchPh");
  m_ph->onTyped = [this](const QString& digits) { keep([&] { return m_edits.setPhRead(digits); }); };
  for (auto* field : {m_ec, m_ph}) {
    field->setFixedWidth(64);
    field->onMessage = [this](const QString& words) { emit message(words); };
  }
  m_who = new QLineEdit;
  m_who->setObjectName("batchWho");
  m_who->setPlaceholderText(tr("initials"));
  m_who->setFixedWidth(66);
  connect(m_who, &QLineEdit::textEdited, this,
          [this](const QString& text) { keep([&] { return m_edits.setWho(text); }); });
  m_ecUnit = new PlainLabel;
  row->addTogether({new PlainLabel(tr("Read: EC")), m_ec, m_ecUnit});
  row->addTogether({new PlainLabel("pH"), m_ph});
  row->addWidget(m_who);
  column->addSpacing(6);
  column->addLayout(row);
  m_note = new QLineEdit;
  m_note->setObjectName("batchNote");
  m_note->setPlaceholderText(tr("note"));
  connect(m_note, &QLineEdit::textEdited, this,
          [this](const QString& text) { keep([&] { return m_edits.setNote(text); }); });
  column->addWidget(m_note);
}

void BatchPanel::addButtons(QVBoxLayout* column) {
  auto* row = new FlowRow;
  auto* sheet = new QPushButton(tr("Sheet as printed"));
  sheet->setObjectName("batchSheet");
  sheet->setEnabled(!m_edits.batch().sheet.empty());
  connect(sheet, &QPushButton::clicked, this, [this] {
    const auto html = m_desk.book().store().sheet(m_edits.batch().sheet);
    if (html && *html)
      emit sheetAsked(qtext(**html).replace(
          sheetDayMark, dateOnSheet(QDateTime::fromSecsSinceEpoch(m_edits.batch().at.seconds).date(),
                                    m_edits.batch().formulaVersion)));
  });
  auto* formula = new QPushButton(tr("Formula as used"));
  formula->setObjectName("batchFormula");
  formula->setEnabled(m_edits.batch().formulaVersion > 0);
  connect(formula, &QPushButton::clicked, this,
          [this] { emit formulaAsked(m_edits.batch().formulaUid, m_edits.batch().formulaVersion); });
  auto* bin = new QPushButton(tr("Into the bin"));
  bin->setObjectName("batchBin");
  bin->setEnabled(!m_desk.isReadOnly());
  connect(bin, &QPushButton::clicked, this, &BatchPanel::binAsked);
  for (auto* button : {sheet, formula, bin})
    row->addWidget(button);
  column->addLayout(row);
}

void BatchPanel::keep(const std::function<book::Trouble()>& edit) {
  m_setting = true;
  const auto trouble = edit();
  m_setting = false;
  if (trouble) return emit message(qtext(words::problemText(*trouble)));
  fill();
}

void BatchPanel::fill() {
  const auto& t = theme();
  const auto worst = m_edits.batch().worstDeviationPercent();
  m_head->setText(
      tr("<span style='font-size:15px'><b>%1</b></span><br>%2 · version %3 · %4 of feed%5%6<br>%7")
          .arg(qtext(m_edits.batch().formulaName).toHtmlEscaped(), whenText(m_edits.batch().at),
               m_edits.batch().formulaVersion > 0 ? QString::number(m_edits.batch().formulaVersion)
                                                  : tr("not kept"),
               m_units.text(core::Volume::fromLitres(m_edits.batch().litres)),
               m_edits.batch().ecPlanned ? tr(" · EC planned %1")
                                               .arg(m_units.text(core::Conductivity::fromMilliSiemensPerCm(
                                                   *m_edits.batch().ecPlanned)))
                                         : QString(),
               m_edits.batch().phPlanned
                   ? tr(" · pH planned %1").arg(localNumber(*m_edits.batch().phPlanned, 1))
                   : QString(),
               worst ? tr("worst weighing %1 % off plan").arg(localNumber(*worst, 1))
                     : tr("nothing weighed yet")));
  for (std::size_t i = 0; i < m_lines.size(); ++i) {
    const auto& weight = m_edits.batch().weights[i];
    auto& line = m_lines[i];
    QString digits;
    if (weight.actual) {
      const auto unit = m_units.text(core::Mass::fromGrams(weight.plannedGrams)).section(' ', -1);
      digits = shownIn(*weight.actual, unit);
    }
    line.actual->show(digits);
    if (!line.lot->hasFocus()) line.lot->setText(qtext(weight.lot));
    const auto off = weight.deviationPercent();
    const bool much = off && std::abs(*off) > offPlanPercent;
    line.deviation->setText(!off ? QString()
                                 : (much ? "▲ " : "") + QString(*off >= 0 ? "+" : "−") +
                                       localNumber(std::abs(*off), 1) + " %");
    restyle(*line.deviation, QString("color: %1; font-weight: %2")
                                 .arg((much ? t.amberInk : t.inkSoft).name(), much ? "bold" : "normal"));
  }
  m_ecUnit->setText(m_units.conductivityUnitName());
  m_ec->show(m_edits.batch().ecRead ? shownIn(*m_edits.batch().ecRead, m_units.conductivityUnit())
                                    : QString());
  m_ph->show(qtext(m_edits.batch().phRead.value_or("")));
  if (!m_who->hasFocus()) m_who->setText(qtext(m_edits.batch().who));
  if (!m_note->hasFocus()) m_note->setText(qtext(m_edits.batch().note));
}

} // namespace butte::app
