#include "stations/water/source_panel.h"

#include "base/decimal.h"
#include "document/book_desk.h"
#include "document/formula_editor.h"
#include "document/water_edits.h"
#include "fields/number_field.h"
#include "services/units_shown.h"
#include "stations/water/drift_chart.h"
#include "stations/water/ion_rejection.h"
#include "stations/water/water_sources.h"
#include "water/water_plan.h"
#include "water/water_solutes.h"
#include "words.h"

#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

namespace butte::app {

using exchange::Json;

namespace {

QHBoxLayout* flatRow(QWidget* box) {
  auto* row = new QHBoxLayout(box);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(5);
  return row;
}

QString text(const Json& object, const char* key) {
  return object.contains(key) && object[key].is_string()
             ? QString::fromStdString(object[key].get<std::string>())
             : QString();
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
  m_newer = new QLabel;
  m_newer->setObjectName("newerReport");
  m_newer->setWordWrap(true);
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
  m_choice->setAccessibleName("waters at hand");
  m_choice->setMinimumContentsLength(10);
  m_choice->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  connect(m_choice, &QComboBox::activated, this, &SourcePanel::choose);
  m_name = new QLineEdit;
  m_name->setObjectName("waterName");
  m_name->setAccessibleName("name of the water");
  connect(m_name, &QLineEdit::textEdited, this, [this](const QString& typed) {
    WaterEdits(m_editor).set(m_part, "water named “" + typed + "”", "name", typed.toStdString());
  });
  m_report = new QComboBox;
  m_report->setObjectName("waterReport");
  m_report->setAccessibleName("report of this source");
  connect(m_report, &QComboBox::activated, this, &SourcePanel::chooseReport);
  auto* names = new QHBoxLayout;
  names->addWidget(m_name, 1);
  names->addWidget(m_choice, 1);
  m_remove = new QPushButton("✕");
  m_remove->setObjectName("removeSource");
  m_remove->setAccessibleName("take this source out of the blend");
  m_remove->setToolTip(m_remove->accessibleName());
  m_remove->setFixedWidth(34);
  connect(m_remove, &QPushButton::clicked, this, [this] { WaterEdits(m_editor).remove(m_part); });
  names->addWidget(m_remove);
  column->addLayout(names);
  m_estimate = new QCheckBox("guess the rest");
  m_estimate->setObjectName("waterEstimate");
  m_estimate->setToolTip(
      "From EC, hardness and alkalinity, with honest ranges that widen the formula's bands");
  connect(m_estimate, &QCheckBox::clicked, this, [this](bool on) {
    WaterEdits(m_editor).set(m_part, on ? "what is not measured is guessed" : "no guessing", "estimate",
                             on ? Json(true) : Json(), false);
  });
  auto* paste = new QPushButton("Paste report…");
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
  m_treatment->setAccessibleName("treatment of this source");
  m_treatment->addItem("as it comes", "");
  m_treatment->addItem("reverse osmosis", "reverse_osmosis");
  m_treatment->addItem("softener", "softener");
  connect(m_treatment, &QComboBox::activated, this, &SourcePanel::treatmentChosen);
  m_rejection = new NumberField({"rejection of the membrane", "%", 0, 100});
  m_rejection->setObjectName("roRejection");
  m_rejection->onTyped = [this](const QString& d) { setMembrane("rejection_percent", d); };
  m_recovery = new NumberField({"recovery of the membrane", "%", 1, 99});
  m_recovery->setObjectName("roRecovery");
  m_recovery->onTyped = [this](const QString& d) { setMembrane("recovery_percent", d); };
  m_hardnessLeft = new NumberField({"hardness left by the softener", "meq/L", 0, 100});
  m_hardnessLeft->setObjectName("softenerLeft");
  m_hardnessLeft->onTyped = [this](const QString& d) {
    WaterEdits(m_editor).set(
        m_part, "softener leaves " + d + " meq/L", "treatment",
        Json{{"kind", "softener"}, {"hardness_left", exchange::amountJson(d.toStdString(), "meq/L")}});
  };
  for (auto* field : {m_rejection, m_recovery, m_hardnessLeft}) {
    field->setFixedWidth(52);
    field->onMessage = [this](const QString& words) { emit message(words); };
  }
  m_membraneRow = new QWidget;
  auto* membrane = flatRow(m_membraneRow);
  membrane->addWidget(new QLabel("rejects"));
  membrane->addWidget(m_rejection);
  membrane->addWidget(new QLabel("%  yields"));
  membrane->addWidget(m_recovery);
  membrane->addWidget(new QLabel("%"));
  m_softenerRow = new QWidget;
  auto* softener = flatRow(m_softenerRow);
  softener->addWidget(new QLabel("leaves"));
  softener->addWidget(m_hardnessLeft);
  softener->addWidget(new QLabel("meq/L hardness"));
  m_treated = new QLabel;
  m_treated->setObjectName("treatedWater");
  m_treated->setProperty("soft", true);
  row->addWidget(m_treatment);
  row->addWidget(m_membraneRow);
  row->addWidget(m_softenerRow);
  row->addStretch();
  return box;
}

QWidget* SourcePanel::makeShare() {
  m_shareRow = new QWidget;
  auto* row = flatRow(m_shareRow);
  m_share = new NumberField({"share of this source", "%", 0, 100});
  m_share->setObjectName("waterShare");
  m_share->setFixedWidth(56);
  m_share->onMessage = [this](const QString& words) { emit message(words); };
  m_share->onTyped = [this](const QString& d) {
    // The others keep their proportions.
    const auto& parts = m_editor.document().water.answer.parts;
    const double mine = d.toDouble(), others = 1 - parts[m_part].share;
    std::vector<double> percent;
    for (std::size_t i = 0; i < parts.size(); ++i) {
      const double even = 1.0 / static_cast<double>(parts.size() - 1);
      percent.push_back(i == m_part ? mine : (100 - mine) * (others > 1e-9 ? parts[i].share / others : even));
    }
    WaterEdits(m_editor).setShares(percent, true);
  };
  m_goal = new QComboBox;
  m_goal->setObjectName("blendGoal");
  m_goal->setAccessibleName("what the blend shall not exceed");
  m_goal->addItem("alkalinity, mg/L as CaCO₃", static_cast<int>(core::BlendGoal::Alkalinity));
  m_goal->addItem("EC, mS/cm", static_cast<int>(core::BlendGoal::Conductivity));
  m_goal->addItem("sodium, mg/L", static_cast<int>(core::BlendGoal::Sodium));
  m_goal->addItem("chloride, mg/L", static_cast<int>(core::BlendGoal::Chloride));
  m_goal->addItem("calcium, mg/L", static_cast<int>(core::BlendGoal::Calcium));
  m_goal->setMinimumContentsLength(7);
  m_goal->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  m_limit = new NumberField({"limit of the blend", "", 0, 1e5});
  m_limit->setObjectName("blendLimit");
  m_limit->setFixedWidth(52);
  m_limit->show("40");
  connect(m_limit, &QLineEdit::returnPressed, this, &SourcePanel::findShare);
  auto* find = new QPushButton("Find");
  find->setObjectName("findShare");
  find->setToolTip("As much of this source as keeps the blend within the limit");
  connect(find, &QPushButton::clicked, this, &SourcePanel::findShare);
  row->addWidget(m_share);
  row->addWidget(new QLabel("%, or at most"));
  row->addWidget(m_limit);
  row->addWidget(m_goal, 1);
  row->addWidget(find);
  return m_shareRow;
}

void SourcePanel::fillChoices() {
  m_choice->clear();
  m_choice->addItem("Take another water…");
  m_choice->addItem("Pure water (RO, distilled)", QByteArray(R"({"name": "Pure water", "rows": []})"));
  m_choice->addItem("Unknown tap (guess it)",
                    QByteArray(R"({"name": "Unknown tap", "rows": [], "estimate": true})"));
  for (const auto& source : watersOf(m_desk))
    m_choice->addItem(source.name,
                      QByteArray::fromStdString(sourceFrom(source, source.reports.back().first).dump()));
  for (const auto& water : sampleWaters()) {
    const auto name = text(water, "name");
    if (m_choice->findText(name) < 0) m_choice->addItem(name, QByteArray::fromStdString(water.dump()));
  }
}

void SourcePanel::choose(int index) {
  const auto json = m_choice->itemData(index).toByteArray();
  m_choice->setCurrentIndex(0);
  if (json.isEmpty()) return;
  const auto water = Json::parse(json.begin(), json.end());
  WaterEdits(m_editor).replace(m_part, water, "water “" + text(water, "name") + "”");
}

void SourcePanel::chooseReport(int index) {
  const auto source = m_reports; // what is chosen changes it
  if (!source) return;
  const auto date = m_report->itemData(index).toString();
  WaterEdits(m_editor).replace(m_part, sourceFrom(*source, date.toStdString()),
                               source->name + ": report " + m_report->itemText(index));
}

void SourcePanel::treatmentChosen(int index) {
  const auto kind = m_treatment->itemData(index).toString();
  Json treatment;
  if (kind == "reverse_osmosis")
    treatment = Json{{"kind", "reverse_osmosis"}, {"rejection_percent", "97"}, {"recovery_percent", "50"}};
  if (kind == "softener")
    treatment = Json{{"kind", "softener"}, {"hardness_left", exchange::amountJson("0.2", "meq/L")}};
  WaterEdits(m_editor).set(m_part, "treatment: " + m_treatment->itemText(index), "treatment", treatment,
                           false);
}

void SourcePanel::setMembrane(const char* key, const QString& digits) {
  const auto& part = WaterEdits(m_editor).part(m_part);
  if (!part.contains("treatment") || !part["treatment"].is_object()) return;
  Json treatment = part["treatment"];
  treatment[key] = digits.toStdString();
  WaterEdits(m_editor).set(m_part, QString(key).section('_', 0, 0) + " of the membrane to " + digits + " %",
                           "treatment", treatment);
}

void SourcePanel::findShare() {
  const auto& water = m_editor.document().water;
  std::vector<core::BlendPart> parts;
  for (const auto& part : water.answer.parts)
    parts.push_back({part.treated, part.share});
  const auto goal = static_cast<core::BlendGoal>(m_goal->currentData().toInt());
  const double typed = core::parseDecimal(m_limit->text().toStdString()).value_or(0);
  const double limit = goal == core::BlendGoal::Alkalinity ? typed / 50.043 : typed;
  // With no share among the others, they are taken evenly.
  double others = 0;
  for (std::size_t i = 0; i < parts.size(); ++i)
    others += i == m_part ? 0 : parts[i].share;
  for (std::size_t i = 0; i < parts.size() && others <= 0; ++i)
    parts[i].share = 1;
  const auto share = core::largestShare(parts, m_part, {goal, limit});
  if (!share)
    return emit message(share.problem().code == core::ProblemCode::CannotReach
                            ? QString("The other waters alone are beyond that limit already.")
                            : QString("That figure is not known of every water in the blend."));
  double rest = 0;
  for (std::size_t i = 0; i < parts.size(); ++i)
    rest += i == m_part ? 0 : parts[i].share;
  std::vector<double> percent;
  for (std::size_t i = 0; i < parts.size(); ++i)
    percent.push_back(100 * (i == m_part ? *share : (1 - *share) * parts[i].share / rest));
  WaterEdits(m_editor).setShares(percent, false);
  emit message(QString("%1 % of %2 keeps the blend within %3.")
                   .arg(localNumber(100 * *share, 1), m_name->text(), m_goal->currentText()));
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
      m_report->addItem(QString::fromStdString(it->first), QString::fromStdString(it->first));
    m_report->addItem("worst of all", "worst");
    m_report->setCurrentIndex(std::max(0, m_report->findData(QString::fromStdString(about.report))));
    for (const auto& [date, water] : source->reports) {
      std::optional<core::Problem> problem;
      const auto read = exchange::readWaterDocument(water, "water", problem);
      if (!problem) points.push_back({date, read.answer.water});
    }
  }
  if (source && !source->reports.empty() && about.report != "worst" &&
      about.report < source->reports.back().first) {
    m_newer->setText("▲ A newer report is in the book: " +
                     QString::fromStdString(source->reports.back().first) + ". Choose it above.");
    m_newer->show();
  }
  m_drift->show(std::move(points));
}

void SourcePanel::refreshTreatment() {
  const auto& water = m_editor.document().water;
  const auto& treatment = water.plan.parts[m_part].treatment;
  const auto& answer = water.answer.parts[m_part];
  const auto& json = WaterEdits(m_editor).part(m_part);
  const bool membrane = std::holds_alternative<core::ReverseOsmosis>(treatment);
  const bool softener = std::holds_alternative<core::Softener>(treatment);
  m_treatment->setCurrentIndex(membrane ? 1 : softener ? 2 : 0);
  m_membraneRow->setVisible(membrane);
  m_ionRow->setVisible(membrane);
  m_softenerRow->setVisible(softener);
  m_treated->setVisible(membrane || softener);
  if (membrane) {
    m_rejection->show(text(json["treatment"], "rejection_percent"));
    m_recovery->show(text(json["treatment"], "recovery_percent"));
    m_ionRow->showPart(m_part);
    const auto ec = core::computedConductivityMsPerCm(answer.treated);
    m_treated->setText(QString("%1 L waste per L%2")
                           .arg(localFigure(answer.share > 0 ? answer.wasteLitresPerLitre / answer.share : 0),
                                ec ? ", EC " + localFigure(*ec) : QString()));
    m_treated->setToolTip(
        "Sediment filter every 6 months, membrane every 1 to 2 years (common practice). A pH pen "
        "says little in permeate.");
  } else if (softener) {
    m_softenerRow->setVisible(true);
    if (json["treatment"].contains("hardness_left"))
      m_hardnessLeft->show(text(json["treatment"]["hardness_left"], "amount"));
    m_treated->setText(QString("sodium now %1 mg/L")
                           .arg(localFigure(answer.treated.milligramsPerLitre.of(core::Nutrient::Na))));
  }
}

void SourcePanel::show(std::size_t part) {
  m_part = part;
  const auto& uid = m_editor.document().water.sources[part].uid;
  if (m_stale) fillChoices();
  if (m_stale || uid != m_reportsUid) m_reports = waterInBook(m_desk, uid);
  m_reportsUid = uid;
  m_stale = false;
  const auto& json = WaterEdits(m_editor).part(part);
  if (const auto name = text(json, "name"); m_name->text() != name) m_name->setText(name);
  m_estimate->setChecked(json.value("estimate", false));
  refreshReports();
  refreshTreatment();
  const auto count = WaterEdits(m_editor).count();
  m_shareRow->setVisible(count > 1);
  m_remove->setVisible(count > 1);
  if (count > 1)
    m_share->show(
        QString::number(std::round(1000 * m_editor.document().water.answer.parts[part].share) / 10));
}

} // namespace butte::app
