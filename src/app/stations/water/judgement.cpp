#include "stations/water/judgement.h"

#include "document/formula_editor.h"
#include "edits/water_edits.h"
#include "formula/water_as_used.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "product/oxides.h"
#include "services/units_shown.h"
#include "stations/water/verdict_figures.h"
#include "stations/water/verdict_scales.h"
#include "water_words.h"
#include "wording/falling_words.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "wording/water_words.h"
#include "words.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace butte::app {

using core::VerdictLevel;

namespace {

QString coloured(const QString& text, const QColor& colour, bool bold) {
  const auto inner = bold ? "<b>" + text + "</b>" : text;
  return QString("<span style='color:%1'>%2</span>").arg(colour.name(), inner);
}

QString mark(VerdictLevel level) {
  switch (level) {
  case VerdictLevel::TooHigh:
    return coloured(tr("▲ too high"), theme().red, true);
  case VerdictLevel::Watch:
    return coloured(tr("◆ watch"), theme().amberInk, true);
  case VerdictLevel::Fine:
    return coloured(tr("○ unsure"), theme().inkSoft, false);
  case VerdictLevel::NotMeasured:
    return {};
  }
  return {};
}

/// Doubts of a report worth a word that the offers do not say.
bool isRemark(core::WaterRemark remark) {
  return remark != core::WaterRemark::Pure && remark != core::WaterRemark::HardnessDisagrees &&
         remark != core::WaterRemark::AlkalinityDisagrees && remark != core::WaterRemark::ChargeUnbalanced;
}

} // namespace

Judgement::Judgement(FormulaEditor& editor, UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_units(units), m_doubts(new WrappedLabel),
      m_verdicts(new WrappedLabel), m_scales(new VerdictScales(units)), m_offerPlace(new QVBoxLayout),
      m_system(new QComboBox), m_watering(new QComboBox) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 8, 0);
  column->setSpacing(4);
  m_doubts->setObjectName("waterBalance");
  m_verdicts->setObjectName("waterVerdicts");
  m_verdicts->setTextFormat(Qt::RichText);
  m_system->setObjectName("waterSystem");
  m_system->setAccessibleName(tr("growing system"));
  m_system->addItem(tr("drain runs to waste"), "open");
  m_system->addItem(tr("drain is used again"), "recirculating");
  connect(m_system, &QComboBox::activated, this,
          [this](int index) { WaterEdits(m_editor).setDrainUsedAgain(index == 1); });
  m_watering->setObjectName("waterOnLeaves");
  m_watering->setAccessibleName(tr("what the water wets"));
  m_watering->addItem(tr("to the roots"));
  m_watering->addItem(tr("over the leaves"));
  connect(m_watering, &QComboBox::activated, this,
          [this](int index) { WaterEdits(m_editor).setOnLeaves(index == 1); });
  auto* heading = new PlainLabel(tr("What is it good for?"));
  heading->setFont(faceOf(14, true));
  auto* row = new FlowRow;
  row->addWidget(m_watering);
  row->addWidget(m_system);
  column->addWidget(m_doubts);
  column->addLayout(m_offerPlace);
  column->addWidget(heading);
  column->addLayout(row);
  column->addWidget(m_scales);
  column->addWidget(m_verdicts);
  connect(m_scales, &VerdictScales::explained, this, &Judgement::message);
  column->addStretch();
}

void Judgement::show(std::size_t part) {
  m_part = part;
  const auto& water = m_editor.document().water;
  m_system->setCurrentIndex(water.system == core::GrowingSystem::Recirculating ? 1 : 0);
  m_watering->setCurrentIndex(water.onLeaves ? 1 : 0);
  showDoubts();
  showVerdicts();
}

void Judgement::showDoubts() {
  const auto& report = m_editor.document().water.plan.parts[m_part].report;
  QStringList lines;
  const auto found = core::examineReport(report);
  if (found) {
    for (const auto& doubt : found->doubts)
      lines << "▲ " + qtext(words::doubtText(doubt));
    if (found->doubts.empty() && found->conductivityComputedMsPerCm)
      lines << tr("● The report fits together: cations %1, anions %2 meq/L; its ions make EC %3.")
                   .arg(localNumber(found->cationsMeqPerL, 2), localNumber(found->anionsMeqPerL, 2),
                        m_units.text(
                            core::Conductivity::fromMilliSiemensPerCm(*found->conductivityComputedMsPerCm)));
  }
  for (const auto remark : m_editor.answer().waters.water.remarks) {
    if (isRemark(remark)) lines << "• " + qtext(words::waterRemarkText(remark));
  }
  for (const auto& sentence : fallingSentences(tr("This water"), m_editor.answer().water))
    lines << "• " + sentence;
  m_doubts->setText(lines.join("\n"));
  m_doubts->setVisible(!lines.isEmpty());
  if (m_offersOf == std::pair(m_part, report)) return; // the same buttons: nothing to lay out anew
  m_offersOf.emplace(m_part, report);
  showOffers(found ? found->rereadings : std::vector<core::Rereading>());
}

void Judgement::showOffers(const std::vector<core::Rereading>& ways) {
  delete m_offers;
  m_offers = new QWidget;
  auto* offers = new QVBoxLayout(m_offers);
  offers->setContentsMargins(0, 0, 0, 0);
  offers->setSpacing(3);
  m_offerPlace->addWidget(m_offers);
  if (!ways.empty()) {
    auto* head = new PlainLabel(
        tr("It would fit together if one of these were so. Nothing changes before you press:"));
    head->setWordWrap(true);
    offers->addWidget(head);
  }
  for (int number = 0; const auto& way : ways) {
    auto* button = new QPushButton(qtext(words::rereadingText(way)));
    button->setObjectName(QString("rereading%1").arg(number++));
    button->setStyleSheet("text-align: left");
    button->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    connect(button, &QPushButton::clicked, this, [this, way] { offer(way); });
    offers->addWidget(button);
  }
  m_offers->setVisible(!ways.empty());
}

void Judgement::offer(const core::Rereading& way) {
  WaterEdits(m_editor).reread(m_part, way.from, way.rows);
}

void Judgement::showVerdicts() {
  const auto& document = m_editor.document();
  const auto verdicts = core::verdictsOn(core::waterAsUsed(m_editor.answer()),
                                         {document.water.system, document.water.onLeaves, document.crop},
                                         document.given.request.rows);
  QString html = "<table cellspacing='0' cellpadding='2' width='100%'>";
  std::vector<core::Verdict> measured;
  QStringList unmeasured;
  int rarer = 0; // poisons that few reports state
  for (const auto& v : verdicts) {
    const auto name = verdictName(v);
    if (v.level == VerdictLevel::NotMeasured) {
      const bool usual = v.property == "EC" || v.property == "pH" || v.property == "F" ||
                         v.property == "alkalinity_as_CaCO3" || core::nutrientFromKey(v.property) ||
                         core::statedFormFor(v.property);
      usual ? void(unmeasured << name) : void(++rarer);
      continue;
    }
    measured.push_back(v);
    if (v.level == VerdictLevel::Fine && v.atWorst == VerdictLevel::Fine) continue; // the scale says it
    auto words = qtext(v.limit->why + " " + v.limit->whatToDo);
    if (v.targetMgPerL)
      words =
          tr("More than the target can hold (%1 mg/L of the element). ").arg(localFigure(*v.targetMgPerL)) +
          words;
    if (v.level == VerdictLevel::Fine)
      words = tr("Fine as guessed, but it may be more: have it measured. %1").arg(words);
    html +=
        QString("<tr><td width='92'>%1</td><td><b>%2</b> %3<br><span style='color:%4'>%5</span></td></tr>")
            .arg(mark(v.level), name.toHtmlEscaped(), verdictFigure(v, m_units).toHtmlEscaped(),
                 theme().inkSoft.name(), words.toHtmlEscaped());
  }
  if (rarer > 0) unmeasured << tr("and %1 rarer ones").arg(rarer);
  if (!unmeasured.isEmpty())
    html += tr("<tr><td>○ not known</td><td><span style='color:%1'>%2: not measured, which is not "
               "zero.</span></td></tr>")
                .arg(theme().inkSoft.name(), unmeasured.join(", ").toHtmlEscaped());
  html += tr("</table><p style='color:%1'>Dissolved calcium feeds plants, hard water or not; what harms is "
             "the bicarbonate beside it. The acid need comes from the alkalinity, not from the pH. Local "
             "rules on water come first.</p>")
              .arg(theme().inkSoft.name());
  m_scales->show(measured);
  m_verdicts->setText(html);
}

} // namespace butte::app
