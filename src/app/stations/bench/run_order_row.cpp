#include "stations/bench/run_order_row.h"

#include "edits/bench_edits.h"
#include "paint/plain_label.h"
#include "paint/wrapped_label.h"
#include "services/units_shown.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "words.h"

#include <QComboBox>
#include <QGridLayout>
#include <QLabel>

namespace butte::app {

using core::OrderSchool;

namespace {

QString schoolName(OrderSchool school) {
  switch (school) {
  case OrderSchool::Chemistry:
    return tr("As the chemistry has it");
  case OrderSchool::CalciumFirst:
    return tr("Calcium first, alone");
  case OrderSchool::CalciumLast:
    return tr("Calcium last");
  case OrderSchool::MagnesiumFirst:
    return tr("Magnesium sulfate first");
  case OrderSchool::MagnesiumLast:
    return tr("Magnesium sulfate last");
  case OrderSchool::TracesFirst:
    return tr("Traces first");
  case OrderSchool::HeaviestFirst:
    return tr("The heaviest first");
  case OrderSchool::AcidFirst:
    break;
  }
  return tr("Acid first");
}

QString solidsOf(const BenchEdits& run, const UnitsShown& units, const std::vector<core::Fallen>& fallen) {
  QStringList out;
  for (const auto& one : fallen)
    out << QString("%1 (%2)").arg(one.product ? run.nameOf(*one.product) : qtext(words::solidName(one.solid)),
                                  units.text(core::Concentration::fromGramsPerLitre(one.gramsPerLitre)));
  return out.join(", ");
}

struct SchoolCost {
  bool harmless = true;
  QString words;
};

/// Over all vessels; what falls in the end falls in any order.
SchoolCost costWords(const BenchEdits& run, const UnitsShown& units, OrderSchool school) {
  SchoolCost out;
  QStringList lines;
  bool known = true;
  for (std::size_t v = 0; v < run.firstPlan().vessels.size(); ++v) {
    const auto order = core::orderedBy(school, run.firstPlan(), v);
    const auto cost = core::costOfOrder(run.firstPlan(), v, order);
    const auto vessel = qtext(run.firstPlan().vessels[v].name);
    known = known && cost.known;
    if (!cost.onTheWay.empty()) {
      const auto& first = cost.onTheWay.front();
      lines << tr("In %1 it falls out once %2 is in: %3.")
                   .arg(vessel, run.nameOf(order[first.step].product), solidsOf(run, units, first.fallen));
      out.harmless = false;
    } else if (!cost.atTheMark.empty()) {
      lines << tr("In %1 at the mark, in any order: %2.").arg(vessel, solidsOf(run, units, cost.atTheMark));
    }
  }
  if (lines.isEmpty() && known)
    lines << tr("It costs nothing: all stays clear after each salt, in the water that is there by then.");
  if (!known) lines << tr("Of some products here the chemistry is not known: look for cloud after each.");
  out.words = lines.join(" ");
  return out;
}

} // namespace

RunOrderRow::RunOrderRow(BenchEdits& run, const UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_run(run), m_units(units), m_schools(new QComboBox), m_cost(new WrappedLabel) {
  m_schools->setObjectName("runOrder");
  m_schools->setAccessibleName(tr("order of the salts"));
  for (const auto school : core::allOrderSchools)
    m_schools->addItem(schoolName(school));
  m_cost->setObjectName("runOrderCost");
  m_cost->setProperty("soft", true);
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->addWidget(new PlainLabel(tr("Order of the salts:")), 0, 0, Qt::AlignTop);
  grid->addWidget(m_schools, 0, 1, Qt::AlignTop);
  grid->addWidget(m_cost, 0, 2);
  grid->setColumnStretch(2, 1);
  connect(m_schools, &QComboBox::activated, this,
          [this](int index) { choose(core::allOrderSchools[static_cast<std::size_t>(index)]); });
}

void RunOrderRow::choose(OrderSchool school) {
  const auto cost = costWords(m_run, m_units, school);
  const auto before = m_run.order();
  // The chemistry's own order is as good as it gets, whatever falls.
  if (!cost.harmless && school != OrderSchool::Chemistry) {
    m_schools->setCurrentIndex(static_cast<int>(before));
    return m_cost->setText(
        tr("▲ \"%1\" would do harm, so it is not taken. %2").arg(schoolName(school), cost.words));
  }
  if (const auto trouble = m_run.setOrder(school)) return onMessage(problemWords(*trouble));
  onChosen();
  m_cost->setText(cost.words);
}

void RunOrderRow::refresh() {
  setVisible(m_run.isOpen() && m_run.canBeReordered());
  if (!m_run.isOpen()) return;
  const auto index = static_cast<int>(m_run.order());
  if (m_schools->currentIndex() == index && !m_cost->text().isEmpty()) return;
  m_schools->setCurrentIndex(index);
  m_cost->setText(
      tr("Schools differ. Another order is taken where it does no harm; what it costs stands here."));
}

} // namespace butte::app
