#include "stations/water/source_panel.h"

#include "base/decimal.h"
#include "document/book_desk.h"
#include "document/formula_editor.h"
#include "edits/water_edits.h"
#include "edits/water_sources.h"
#include "fields/number_field.h"
#include "measures.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "paint/wrapped_label.h"
#include "services/units_shown.h"
#include "stations/water/drift_chart.h"
#include "stations/water/ion_rejection.h"
#include "units/constants.h"
#include "water/shares.h"
#include "water/water_plan.h"
#include "water/water_solutes.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "words.h"

#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

namespace butte::app {

namespace {

FlowRow* flatRow(QWidget* box) {
  return new FlowRow(box, 5);
}

} // namespace

SourcePanel::SourcePanel(FormulaEditor& editor, BookDesk& desk, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_desk(desk) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  connect(&desk, &BookDesk::bookOpened, this, [this] { m_stale = true; });
  connect(&desk, &BookDesk::changed, this, [this](const std::vector<book::Ref>& refs) {
    for (const auto& ref : refs)
      m_stale = m_stale || ref.kind == book::Kind::Water;
  });
  column->addWidget(makeTop());
  m_newer = new WrappedLabel;
  m_newer->setObjectName("newerReport");
  column->addWidget(m_newer);
  m_drift = new DriftChart;
  column->addWidget(m_drift);
  column->addWidget(makeTreatment());
  m_ionRow = new IonRejection(editor);
  connect(m_ionRow, &IonRejection::message, this, &SourcePanel::message);
  column->addWidget(m_ionRow);
  column->addWidget(m_treated);
  column->addWidget(makeShare());
  // Until a source is shown: what few need takes no room.
  for (auto* part : std::initializer_list<QWidget*>{m_newer, m_drift, m_ionRow, m_membraneRow, m_softenerRow,
                                                    m_treated, m_report, m_remove})
    part->hide();
}

QWidget* SourcePanel::makeTop() {
  auto* box = new QWidget;
  auto* column = new QVBoxLayout(box);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  m_choice = new QComboBox;
  m_choice->setObjectName("waterChoice");
  m_choice->setAccessibleName(tr("waters at hand"));
  m_choice->setMinimumContentsLength(10);
  m_choice->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  connect(m_choice, &QComboBox::activated, this, &SourcePanel::choose);
  m_name = new QLineEdit;
  m_name->setObjectName("waterName");
  m_name->setAccessibleName(tr("name of the water"));
  connect(m_name, &QLineEdit::textEdited, this,
          [this](const QString& typed) { WaterEdits(m_editor).setName(m_part, typed); });
  m_report = new QComboBox;
  m_report->setObjectName("waterReport");
  m_report->setAccessibleName(tr("report of this source"));
  connect(m_report, &QComboBox::activated, this, &SourcePanel::chooseReport);
  auto* names = new QHBoxLayout;
  names->addWidget(m_name, 1);
  names->addWidget(m_choice, 1);
  m_remove = new QPushButton("✕");
  m_remove->setObjectName("removeSource");
  m_remove->setAccessibleName(tr("take this source out of the blend"));
  m_remove->setToolTip(m_remove->accessibleName());
  m_remove->setFixedWidth(34);
  connect(m_remove, &QPushButton::clicked, this, [this] { WaterEdits(m_editor).remove(m_part); });
  names->addWidget(m_remove);
  column->addLayout(names);
  m_estimate = new QCheckBox(tr("guess the rest"));
  m_estimate->setObjectName("waterEstimate");
  m_estimate->setToolTip(
      tr("From EC, hardness and alkalinity, with honest ranges that widen the formula's bands"));
  connect(m_estimate, &QCheckBox::clicked, this,
          [this](bool on) { WaterEdits(m_editor).setGuessing(m_part, on); });
  auto* paste = new QPushButton(tr("Paste report…"));
  paste->setObjectName("pasteReport");
  connect(paste, &QPushButton::clicked, this, &SourcePanel::pasteAsked);
  auto* row = new QHBoxLayout;
  row->addWidget(m_report);
  row->addWidget(m_estimate);
  row->addStretch();
  row->addWidget(paste);
  column->addLayout(row);
  return box;
}

QWidget* SourcePanel::makeTreatment() {
  auto* box = new QWidget;
  auto* row = flatRow(box);
  m_treatment = new QComboBox;
  m_treatment->setObjectName("waterTreatment");
  m_treatment->setAccessibleName(tr("treatment of this source"));
  m_treatment->addItem(tr("untreated"));
  m_treatment->addItem(tr("reverse osmosis"));
  m_treatment->addItem(tr("softener"));
  connect(m_treatment, &QComboBox::activated, this, &SourcePanel::treatmentChosen);
  m_rejection = new NumberField({tr("rejection of the membrane"), "%", 0, 100});
  m_rejection->setObjectName("roRejection");
  m_rejection->onTyped = [this](const QString& d) { WaterEdits(m_editor).setMembraneRejection(m_part, d); };
  m_recovery = new NumberField({tr("recovery of the membrane"), "%", 1, 99});
  m_recovery->setObjectName("roRecovery");
  m_recovery->onTyped = [this](const QString& d) { WaterEdits(m_editor).setMembraneRecovery(m_part, d); };
  m_hardnessLeft = new NumberField({tr("hardness left by the softener"), "meq/L", 0, 100});
  m_hardnessLeft->setObjectName("softenerLeft");
  m_hardnessLeft->onTyped = [this](const QString& d) { WaterEdits(m_editor).setSoftenerLeaves(m_part, d); };
  for (auto* field : {m_rejection, m_recovery, m_hardnessLeft}) {
    field->setFixedWidth(52);
    field->onMessage = [this](const QString& words) { emit message(words); };
  }
  m_membraneRow = new QWidget;
  auto* membrane = flatRow(m_membraneRow);
  membrane->addWidget(new PlainLabel(tr("rejects")));
  membrane->addWidget(m_rejection);
  membrane->addWidget(new PlainLabel(tr("%  yields")));
  membrane->addWidget(m_recovery);
  membrane->addWidget(new PlainLabel("%"));
  m_softenerRow = new QWidget;
  auto* softener = flatRow(m_softenerRow);
  softener->addWidget(new PlainLabel(tr("leaves")));
  softener->addWidget(m_hardnessLeft);
  softener->addWidget(new PlainLabel(tr("meq/L hardness")));
  m_treated = new PlainLabel;
  m_treated->setObjectName("treatedWater");
  m_treated->setProperty("soft", true);
  row->addWidget(m_treatment);
  row->addWidget(m_membraneRow);
  row->addWidget(m_softenerRow);
  return box;
}

QWidget* SourcePanel::makeShare() {
  m_shareRow = new QWidget;
  auto* row = flatRow(m_shareRow);
  m_share = new NumberField({tr("share of this source"), "%", 0, 100});
  m_share->setObjectName("waterShare");
  m_share->setFixedWidth(46);
  m_share->onMessage = [this](const QString& words) { emit message(words); };
  m_share->onTyped = [this](const QString& d) {
    std::vector<double> shares;
    for (const auto& part : m_editor.answer().waters.parts)
      shares.push_back(part.share);
    setShares(core::withShareOf(shares, m_part, d.toDouble() / 100), true);
  };
  m_goal = new QComboBox;
  m_goal->setObjectName("blendGoal");
  m_goal->setAccessibleName(tr("what the blend must not exceed"));
  m_goal->addItem(tr("alkalinity, mg/L as CaCO₃"), static_cast<int>(core::BlendGoal::Alkalinity));
  m_goal->addItem("EC", static_cast<int>(core::BlendGoal::Conductivity));
  m_goal->addItem(tr("sodium, mg/L"), static_cast<int>(core::BlendGoal::Sodium));
  m_goal->addItem(tr("chloride, mg/L"), static_cast<int>(core::BlendGoal::Chloride));
  m_goal->addItem(tr("calcium, mg/L"), static_cast<int>(core::BlendGoal::Calcium));
  m_limit = new NumberField({tr("limit of the blend"), "", 0, 1e5});
  m_limit->setObjectName("blendLimit");
  m_limit->setFixedWidth(46);
  m_limit->show("40");
  m_limit->asked = [this] {
    const bool ec = m_goal->currentData().toInt() == static_cast<int>(core::BlendGoal::Conductivity);
    return AskedUnit{ec ? words::measures().conductivityUnit() : std::string(), {}};
  };
  connect(m_limit, &QLineEdit::returnPressed, this, &SourcePanel::findShare);
  auto* find = new QPushButton(tr("Find"));
  find->setObjectName("findShare");
  find->setToolTip(tr("As much of this source as keeps the blend within the limit"));
  connect(find, &QPushButton::clicked, this, &SourcePanel::findShare);
  row->addTogether({m_share, new PlainLabel(tr("%, or at most")), m_limit});
  row->addWidget(m_goal);
  row->addWidget(find);
  return m_shareRow;
}

void SourcePanel::fillChoices() {
  m_choice->clear();
  m_choice->addItem(tr("Take another water…"));
  m_offers = waterOffers(m_desk);
  for (const auto& offer : m_offers)
    m_choice->addItem(offer.name);
}

void SourcePanel::choose(int index) {
  m_choice->setCurrentIndex(0);
  if (index < 1 || index > static_cast<int>(m_offers.size())) return;
  WaterEdits(m_editor).take(m_part, m_offers[static_cast<std::size_t>(index - 1)]);
}

void SourcePanel::chooseReport(int index) {
  const auto source = m_reports; // what is chosen changes it
  if (!source) return;
  WaterEdits(m_editor).takeReport(m_part, *source, m_report->itemData(index).toString().toStdString());
}

void SourcePanel::treatmentChosen(int index) {
  WaterEdits(m_editor).setTreatment(m_part, static_cast<SourceTreatment>(index));
}

void SourcePanel::setShares(const std::vector<double>& shares, bool merge) {
  std::vector<double> percent;
  for (const double share : shares)
    percent.push_back(100 * share);
  WaterEdits(m_editor).setShares(percent, merge);
}

void SourcePanel::findShare() {
  std::vector<core::BlendPart> parts;
  for (const auto& part : m_editor.answer().waters.parts)
    parts.push_back({part.treated, part.share});
  const auto goal = static_cast<core::BlendGoal>(m_goal->currentData().toInt());
  const double typed = core::parseDecimal(m_limit->digits().toStdString()).value_or(0);
  const double limit = goal == core::BlendGoal::Alkalinity ? typed / core::constant::milligramsCaCO3PerMeq
                       : goal == core::BlendGoal::Conductivity
                           ? words::measures().conductivityOf(typed).milliSiemensPerCm()
                           : typed;
  const auto share = core::largestShare(parts, m_part, {goal, limit});
  if (!share)
    return emit message(share.problem().code == core::ProblemCode::CannotReach
                            ? tr("The other waters alone are beyond that limit already.")
                            : tr("That figure is not known of every water in the blend."));
  std::vector<double> shares;
  for (const auto& part : parts)
    shares.push_back(part.share);
  setShares(core::withShareOf(shares, m_part, *share), false);
  emit message(tr("%1 % of %2 keeps the blend within %3.")
                   .arg(localNumber(100 * *share, 1),
                        QString::fromStdString(m_editor.document().water.sources[m_part].name),
                        m_goal->currentText()));
}

void SourcePanel::refreshReports() {
  const auto& about = m_editor.document().water.sources[m_part];
  const auto& source = m_reports;
  const bool several = source && source->reports.size() > 1;
  m_report->setVisible(several);
  m_newer->hide();
  std::vector<DriftChart::Point> points;
  if (several) {
    m_report->clear();
    for (auto it = source->reports.rbegin(); it != source->reports.rend(); ++it)
      m_report->addItem(QString::fromStdString(it->date), QString::fromStdString(it->date));
    m_report->addItem(tr("worst of all"), "worst");
    m_report->setCurrentIndex(std::max(0, m_report->findData(QString::fromStdString(about.report))));
    for (const auto& report : source->reports) {
      if (const auto water = readReport(report)) points.push_back({report.date, *water});
    }
  }
  if (source && !source->reports.empty() && about.report != "worst" &&
      about.report < source->reports.back().date) {
    m_newer->setText(tr("▲ A newer report is in the book: %1. Choose it above.")
                         .arg(QString::fromStdString(source->reports.back().date)));
    m_newer->show();
  }
  m_drift->show(std::move(points));
}

void SourcePanel::refreshTreatment() {
  const auto& water = m_editor.document().water;
  const auto& treatment = water.plan.parts[m_part].treatment;
  const auto& answer = m_editor.answer().waters.parts[m_part];
  const WaterEdits edits(m_editor);
  const bool membrane = std::holds_alternative<core::ReverseOsmosis>(treatment);
  const bool softener = std::holds_alternative<core::Softener>(treatment);
  m_goal->setItemText(m_goal->findData(static_cast<int>(core::BlendGoal::Conductivity)),
                      tr("EC, %1").arg(qtext(words::measures().conductivityUnitName())));
  m_treatment->setCurrentIndex(membrane ? 1 : softener ? 2 : 0);
  m_membraneRow->setVisible(membrane);
  m_ionRow->setVisible(membrane);
  m_softenerRow->setVisible(softener);
  m_treated->setVisible(membrane || softener);
  if (membrane) {
    m_rejection->show(QString::fromStdString(edits.membraneRejection(m_part)));
    m_recovery->show(QString::fromStdString(edits.membraneRecovery(m_part)));
    m_ionRow->showPart(m_part);
    const auto ec = core::computedConductivityMsPerCm(answer.treated);
    const auto& inOne = words::measures();
    const double waste = answer.share > 0 ? answer.wasteLitresPerLitre / answer.share : 0;
    m_treated->setText(
        tr("%1 waste per %2%3")
            .arg(qtext(inOne.text(core::Volume::fromLitres(waste * inOne.oneVolume().litres()))),
                 qtext(inOne.volumeUnitName()),
                 ec ? tr(", EC %1").arg(qtext(inOne.text(core::Conductivity::fromMilliSiemensPerCm(*ec))))
                    : QString()));
    m_treated->setToolTip(
        tr("Sediment filter every 6 months, membrane every 1 to 2 years (common practice). A pH pen "
           "says little in permeate."));
  } else if (softener) {
    m_softenerRow->setVisible(true);
    m_hardnessLeft->show(QString::fromStdString(edits.softenerLeaves(m_part)));
    m_treated->setText(
        tr("sodium now %1 mg/L").arg(localFigure(answer.treated.milligramsPerLitre.of(core::Nutrient::Na))));
  }
}

void SourcePanel::show(std::size_t part) {
  m_part = part;
  const auto& uid = m_editor.document().water.sources[part].uid;
  if (m_stale) fillChoices();
  if (m_stale || uid != m_reportsUid) m_reports = waterInBook(m_desk, uid);
  m_reportsUid = uid;
  m_stale = false;
  if (const auto name = QString::fromStdString(WaterEdits(m_editor).name(part)); m_name->text() != name)
    m_name->setText(name);
  m_name->setPlaceholderText(QString::fromStdString(m_editor.document().water.sources[part].name));
  m_estimate->setChecked(m_editor.document().water.plan.parts[part].report.estimateTheRest);
  refreshReports();
  refreshTreatment();
  const auto count = WaterEdits(m_editor).count();
  m_shareRow->setVisible(count > 1);
  m_remove->setVisible(count > 1);
  if (count > 1)
    m_share->show(QString::number(std::round(1000 * m_editor.answer().waters.parts[part].share) / 10));
}

} // namespace butte::app
