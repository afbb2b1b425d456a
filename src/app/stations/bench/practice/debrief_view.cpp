#include "stations/bench/practice/debrief_view.h"

#include "edits/bench_edits.h"
#include "paint/beside_or_below.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "services/units_shown.h"
#include "stations/bench/deviation_picture.h"
#include "stations/bench/practice/practice_picture.h"
#include "stations/bench/practice/practice_words.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "words.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QListWidget>
#include <QVBoxLayout>

namespace butte::app {

namespace {

constexpr int pointsSize = 34, gap = 24, frame = 4;
constexpr double fullPercent = 100;

} // namespace

DebriefView::DebriefView(const BenchEdits& run, const UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_run(run), m_units(units), m_points(new PlainLabel), m_parts(new WrappedLabel),
      m_moment(new WrappedLabel), m_list(new QListWidget), m_picture(new PracticePicture),
      m_feed(new DeviationPicture) {
  setObjectName("debriefView");
  m_points->setObjectName("debriefPoints");
  m_points->setFont(faceOf(pointsSize, true));
  m_parts->setObjectName("debriefParts");
  m_moment->setObjectName("debriefMoment");
  m_moment->setFont(faceOf(15));
  m_list->setObjectName("debriefMoments");
  m_list->setAccessibleName(tr("the moments of this run"));
  m_list->setWordWrap(true);
  m_list->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  m_list->setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff); // it is as high as its rows
  auto* left = new QVBoxLayout;
  left->addWidget(m_list);
  left->addWidget(m_moment);
  left->addWidget(m_picture);
  left->addStretch();
  auto* right = new QVBoxLayout;
  right->addWidget(m_feed);
  right->addStretch();
  auto* halves = new BesideOrBelow(gap);
  halves->add(left, 1);
  halves->add(right, 1);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  auto* head = new QHBoxLayout;
  head->setSpacing(gap);
  head->addWidget(m_points);
  head->addWidget(m_parts, 1);
  column->addLayout(head);
  column->addWidget(halves, 1);
  connect(m_list, &QListWidget::currentRowChanged, this, &DebriefView::showMoment);
}

void DebriefView::refresh() {
  const bool over =
      m_run.isOpen() && m_run.sort() == RunSort::Practice && m_run.at().phase == core::RunPhase::Done;
  setVisible(over);
  if (!over) return;
  m_debrief = core::debriefOf(m_run.firstPlan(), m_run.events(), m_run.practice().truth);
  m_points->setText(tr("%1 of %2 points")
                        .arg(localNumber(m_debrief.points(), 0))
                        .arg(core::fullChemistryPoints + core::fullSafetyPoints));
  m_parts->setText(
      tr("The feed: %1 of %2 (its elements are off by %3 % in the mean). Safety: %4 of %5. Press a moment "
         "to see it again.")
          .arg(localNumber(m_debrief.chemistry, 0))
          .arg(core::fullChemistryPoints)
          .arg(localNumber(m_debrief.meanOffPercent, 1), localNumber(m_debrief.safety, 0))
          .arg(core::fullSafetyPoints));
  const int row = std::max(0, m_list->currentRow());
  m_list->clear();
  for (const auto& moment : m_debrief.moments) {
    auto* item = new QListWidgetItem(momentHeading(m_run, moment));
    if (!moment.well) item->setForeground(theme().red);
    m_list->addItem(item);
  }
  m_list->setFixedHeight(m_list->count() * m_list->sizeHintForRow(0) + frame);
  m_list->setCurrentRow(std::min(row, m_list->count() - 1));
  showFeed();
}

void DebriefView::showMoment(int index) {
  if (index < 0 || static_cast<std::size_t>(index) >= m_debrief.moments.size()) return;
  const auto& moment = m_debrief.moments[static_cast<std::size_t>(index)];
  const auto state = core::trueState(m_run.firstPlan(), m_run.practice().truth, moment.truth);
  core::Mass wanted;
  for (const auto& step : m_run.firstPlan().vessels[moment.vessel].steps)
    if (step.product == moment.product) wanted = step.planned;
  m_picture->show(m_run.firstPlan(), state, wanted, m_units.text(state.inCup()));
  m_moment->setText(momentText(m_run, m_units, moment));
}

/// The feed that would truly have come of it.
void DebriefView::showFeed() {
  std::vector<DeviationPicture::Row> rows;
  for (const auto n : core::allNutrients) {
    const double planned = m_debrief.plannedMgPerLitre.of(n), truly = m_debrief.trueMgPerLitre.of(n);
    const bool form =
        n == core::Nutrient::NNitrate || n == core::Nutrient::NAmmonium || n == core::Nutrient::NUrea;
    constexpr double least = 0.005;
    if (form || planned < least) continue;
    rows.push_back({qtext(words::nutrientSymbol(n)),
                    tr("%1, planned %2 mg/L").arg(localFigure(truly), localFigure(planned)),
                    fullPercent * (truly - planned) / planned, 0});
  }
  m_feed->show(std::move(rows));
}

} // namespace butte::app
