#include "stations/water/titration_table.h"

#include "base/decimal.h"
#include "document/formula_editor.h"
#include "edits/acid_edits.h"
#include "fields/number_field.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "product/catalogue.h"
#include "refresh/while_seen.h"
#include "services/units_shown.h"
#include "units/constants.h"
#include "units/convert.h"
#include "wording/tr.h"
#include "words.h"

#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>

namespace butte::app {
namespace {

constexpr int rowCount = 8;

} // namespace

TitrationTable::TitrationTable(FormulaEditor& editor, UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_units(units) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  column->addWidget(makeHead());
  column->addWidget(makeRows());
  m_verdict = new WrappedLabel;
  m_verdict->setObjectName("titrationVerdict");
  m_verdict->setTextFormat(Qt::RichText);
  m_verdict->setFont(faceOf(12));
  column->addWidget(m_verdict);
  m_use = new QCheckBox(tr("use what my readings say"));
  m_use->setObjectName("titrationUse");
  connect(m_use, &QCheckBox::clicked, this, [this](bool on) { AcidEdits(m_editor).setTitrationUsed(on); });
  column->addWidget(m_use);
  auto* fresh = new WhileSeen(this, [this] { refresh(); });
  connect(&editor, &FormulaEditor::changed, fresh, &WhileSeen::outdate);
  connect(&units, &UnitsShown::changed, fresh, &WhileSeen::outdate);
  refresh();
}

QWidget* TitrationTable::makeHead() {
  auto* box = new QWidget;
  auto* row = new FlowRow(box);
  auto* title = new PlainLabel(tr("My own readings, in"));
  title->setFont(faceOf(13, true));
  m_sample = new NumberField({tr("water in the sample"), "L", 0.001, 1e6});
  m_sample->setObjectName("titrationSample");
  m_sample->setFixedWidth(52);
  m_sample->onTyped = [this](const QString& digits) {
    AcidEdits(m_editor).setTitrationSample(app::typed(digits, m_units.volumeUnit()));
  };
  m_sample->onMessage = [this](const QString& words) { emit message(words); };
  m_sampleUnit = new PlainLabel;
  row->addTogether({title, m_sample, m_sampleUnit});
  row->addStretch();
  m_seek = new QComboBox;
  m_seek->setObjectName("titrationSeek");
  m_seek->setAccessibleName(tr("what the readings should find"));
  m_seek->addItem(tr("find alkalinity"), "alkalinity");
  m_seek->addItem(tr("find strength"), "strength");
  m_seek->addItem(tr("find both"), "both");
  m_seek->setToolTip(tr(
      "Alkalinity: the bottle says its strength. Strength: an unlabelled bottle in a water whose alkalinity "
      "is known. Both: go on past pH 4"));
  connect(m_seek, &QComboBox::activated, this,
          [this] { AcidEdits(m_editor).setTitrationSeek(m_seek->currentData().toString().toStdString()); });
  row->addWidget(m_seek);
  return box;
}

QWidget* TitrationTable::makeRows() {
  auto* box = new QWidget;
  auto* grid = new QGridLayout(box);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setVerticalSpacing(2);
  grid->setHorizontalSpacing(6);
  for (int i = 0; i < rowCount; ++i) {
    Row row;
    row.dose = new NumberField({tr("acid so far"), "mL", 0, 1e6, true});
    row.ph = new NumberField({tr("pH read"), "", 0, 14, true});
    row.dose->setObjectName("titrationMl" + QString::number(i));
    row.ph->setObjectName("titrationPh" + QString::number(i));
    row.dose->setPlaceholderText(tr("so far"));
    row.ph->setPlaceholderText(tr("pH"));
    const auto at = m_rows.size();
    const auto listen = [this, at](NumberField* field, QString Row::*place) {
      field->onTyped = [this, at, place](const QString& digits) {
        m_rows[at].*place = digits;
        typed();
      };
      field->onMessage = [this](const QString& words) { emit message(words); };
    };
    listen(row.dose, &Row::typedDose);
    listen(row.ph, &Row::typedPh);
    const int line = i % (rowCount / 2), side = i / (rowCount / 2) * 5;
    grid->addWidget(row.dose, line, side);
    row.unit = new PlainLabel(tr("mL"));
    row.unit->setObjectName("titrationUnit" + QString::number(i));
    grid->addWidget(row.unit, line, side + 1);
    grid->addWidget(new PlainLabel(tr("pH")), line, side + 2);
    grid->addWidget(row.ph, line, side + 3);
    m_rows.push_back(row);
  }
  grid->setColumnMinimumWidth(4, 14);
  return box;
}

void TitrationTable::typed() {
  std::vector<std::pair<std::string, std::string>> readings;
  for (const auto& row : m_rows) {
    if (!row.typedDose.isEmpty() && !row.typedPh.isEmpty())
      readings.emplace_back(row.typedDose.toStdString(), row.typedPh.toStdString());
  }
  AcidEdits(m_editor).setTitrationReadings(readings);
}

QString TitrationTable::verdict() const {
  const auto& answer = m_editor.answer().acid;
  const auto& titration = m_editor.document().given.titration;
  if (!titration || titration->readings.empty())
    return tr("Type how much acid went in so far and what the pen read, from 0 mL on. Two readings give the "
              "alkalinity.");
  if (answer.titrationProblem) {
    auto words = QString::fromStdString(words::problemText(*answer.titrationProblem));
    words[0] = words[0].toUpper();
    return words + ".";
  }
  const auto& fit = *answer.titration;
  QStringList parts;
  const auto& product = m_editor.document().given.acid.product;
  if (bottle() && (!product || product->id != titration->productId))
    parts << tr("Read with %1").arg(QString::fromStdString(bottle()->shortName));
  if (titration->unknown != core::TitrationUnknown::Strength)
    parts << tr("alkalinity <b>%1 ± %2 meq/L</b> (%3 mg/L as CaCO₃)")
                 .arg(
                     localNumber(1000 * fit.alkalinityEqPerLitre, 2),
                     localNumber(std::max(1000 * fit.alkalinityStandardError, 0.01), 2),
                     localNumber(1000 * fit.alkalinityEqPerLitre * core::constant::milligramsCaCO3PerMeq, 0));
  if (titration->unknown != core::TitrationUnknown::Alkalinity) {
    const double perMl = std::abs(titration->acidPerMl.alkalinityEq) * 1000;
    parts << tr("the bottle has <b>%1 ± %2 meq/mL</b>")
                 .arg(localFigure(perMl * fit.strengthFactor),
                      localFigure(perMl * fit.strengthStandardError));
  }
  parts << tr("readings scatter %1 pH").arg(localNumber(fit.scatterPh, 2));
  const auto outliers =
      std::count_if(fit.readings.begin(), fit.readings.end(), [](const auto& r) { return r.outlier; });
  if (outliers > 0) parts << tr("<b>%1 left out</b>, far off the curve: check the pen").arg(outliers);
  auto text = parts.join("; ");
  text[0] = text[0].toUpper();
  return text + "." + leftToAdd();
}

/// After a part of the dose and a new reading: what is still missing in that sample.
QString TitrationTable::leftToAdd() const {
  const auto& given = m_editor.document().given;
  const auto& dose = m_editor.answer().acid.forWater;
  if (!dose || !given.acid.product || given.titration->readings.empty() ||
      given.acid.product->id != given.titration->productId || !given.titration->used)
    return {};
  double last = 0;
  for (const auto& reading : given.titration->readings)
    last = std::max(last, reading.dose);
  // In mL to the litre where it is measured, in g where it is weighed: so are the readings.
  const auto density = given.acid.product->densityKgPerL;
  const double needed = dose->gramsPerLitre / density.value_or(1);
  const auto amount = [&](double perLitre) {
    return density ? m_units.dose(perLitre) : m_units.text(core::Concentration::fromGramsPerLitre(perLitre));
  };
  if (last <= needed) return tr(" Still to add: <b>%1</b>.").arg(amount(needed - last));
  if (needed <= 0) return tr(" Already past the aim.");
  // Mixed waters share their acid and their alkalinity.
  const auto& inOne = words::measures();
  const auto thinning = core::Volume::fromLitres(inOne.oneVolume().litres() * (last / needed - 1));
  return tr(" Past the aim by <b>%1</b>: <b>%2</b> more of the same water, untreated, to each %3 brings it "
            "back.")
      .arg(amount(last - needed), m_units.stockText(thinning), m_units.volumeUnitName());
}

/// The sample as typed in another unit, in the one that is shown.
QString TitrationTable::sampleInShownUnit(const exchange::Amount& sample) const {
  const auto amount = sample.isEmpty() ? 1 : sample.value();
  const auto converted = core::convert(amount, sample.unit, m_units.volumeUnit().toStdString());
  return converted ? QString::fromStdString(words::digits(*converted)) : QString();
}

/// What the bottle of the readings is, and whether it is weighed or measured.
const core::CatalogueProduct* TitrationTable::bottle() const {
  return core::findInCatalogue(AcidEdits(m_editor).titration().acidId);
}

void TitrationTable::refresh() {
  const AcidEdits edits(m_editor);
  const auto titration = edits.titration();
  const bool ownUnit = QString::fromStdString(titration.sample.unit) == m_units.volumeUnit();
  m_sample->show(ownUnit ? QString::fromStdString(titration.sample.digits)
                         : sampleInShownUnit(titration.sample));
  m_sampleUnit->setText(m_units.volumeUnitName());
  m_seek->setCurrentIndex(m_seek->findData(QString::fromStdString(titration.seek)));
  const auto& readings = titration.readings;
  for (std::size_t i = 0; i < m_rows.size(); ++i) {
    auto& row = m_rows[i];
    if (i < readings.size()) {
      row.typedDose = QString::fromStdString(readings[i].first);
      row.typedPh = QString::fromStdString(readings[i].second);
    } else if (!row.typedDose.isEmpty() && !row.typedPh.isEmpty()) {
      row.typedDose.clear();
      row.typedPh.clear();
    }
    row.unit->setText(bottle() && !bottle()->liquid ? "g" : "mL");
    row.dose->show(row.typedDose);
    row.ph->show(row.typedPh);
  }
  m_verdict->setText(verdict());
  m_use->setChecked(titration.used);
  m_use->setEnabled(edits.hasTitration());
}

} // namespace butte::app
