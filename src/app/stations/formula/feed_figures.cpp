#include "stations/formula/feed_figures.h"

#include "document/formula_editor.h"
#include "formula_words.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "paint/steady_room.h"
#include "paint/theme.h"
#include "refresh/while_seen.h"
#include "services/units_shown.h"
#include "solution/conductivity.h"
#include "wording/tr.h"
#include "words.h"

#include <QEvent>
#include <QLabel>
#include <QVBoxLayout>

namespace butte::app {

namespace {

constexpr double leastUnsure = 0.02; // mS/cm of ions that labels leave unstated, from which on it is said

/// What a meter with the usual compensation shows in a colder or warmer feed.
QString meterWords(const core::MixResult& feed, const UnitsShown& units) {
  QStringList lines{units.temperature() == TemperatureShown::Celsius
                        ? tr("At 25 °C, by the ions. A meter that compensates 2 % per °C shows")
                        : tr("At 77 °F, by the ions. A meter that compensates 1.1 % per °F shows")};
  for (const double celsius : {10.0, 15.0, 20.0, 30.0}) {
    const auto temperature = core::Temperature::fromCelsius(celsius);
    const auto actual = core::conductivityAt(temperature, feed.solutesPerLitre, feed.waterKgPerLitre, {});
    if (!actual) continue;
    lines << tr("%1 in a feed of %2")
                 .arg(units.text(core::compensatedReading(*actual, temperature)), units.text(temperature));
  }
  return lines.join("\n");
}

/// Solids that the feed is over-saturated with, and how soon they show.
QString standings(const core::MixResult& feed) {
  QStringList lines{tr("Predicted pH: just mixed, and after standing in air")};
  if (!feed.state) return lines.first();
  for (const auto& standing : feed.state->solids) {
    const auto& solid = core::EquilibriumData::instance().solids()[standing.solid];
    if (standing.saturationIndex > 0 && solid.formsWithin != core::FormsWithin::NeverFirst)
      lines << tr("over-saturated with %1 (%2)")
                   .arg(QString::fromStdString(words::solidName(solid.name)),
                        QString::fromStdString(
                            words::kineticsText(solid.formsWithin, standing.saturationIndex)));
  }
  return lines.join("\n");
}

} // namespace

FeedFigures::FeedFigures(FormulaEditor& editor, UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_units(units) {
  auto* row = new FlowRow(this, 12);
  const char* names[] = {"EC", // with its temperature, see refresh()
                         QT_TRANSLATE_NOOP("butte", "pH mixed / in air"),
                         QT_TRANSLATE_NOOP("butte", "cations / anions, meq/L"),
                         QT_TRANSLATE_NOOP("butte", "alkalinity left"),
                         QT_TRANSLATE_NOOP("butte", "NH₄ share of N"),
                         "N : K",
                         QT_TRANSLATE_NOOP("butte", "K : Ca"),
                         QT_TRANSLATE_NOOP("butte", "cost")};
  const char* ids[] = {"figureEc",       "figurePh", "figureIons", "figureAlkalinity",
                       "figureAmmonium", "figureNk", "figureKca",  "figureCost"};
  for (int i = 0; i < 8; ++i) {
    auto* name = new PlainLabel(app::tr(names[i]));
    if (i == 0) m_ecName = name;
    name->setProperty("soft", true);
    name->setFont(faceOf(11));
    auto* value = new PlainLabel;
    value->setObjectName(ids[i]);
    value->setFont(faceOf(14, true));
    auto* figure = new QWidget;
    auto* column = new QVBoxLayout(figure);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(name);
    column->addWidget(new SteadyRoom(value));
    row->addWidget(figure);
    m_values.push_back(value);
  }
  for (auto* value : {m_values[0], m_values[1]})
    value->installEventFilter(this);
  m_rest.setSingleShot(true);
  m_rest.setInterval(300);
  connect(&m_rest, &QTimer::timeout, this, &FeedFigures::findSpread);
  auto* fresh = new WhileSeen(this, [this] { refresh(); });
  connect(&editor, &FormulaEditor::changed, fresh, &WhileSeen::outdate);
  connect(&units, &UnitsShown::changed, fresh, &WhileSeen::outdate);
  refresh();
}

/// The long words are worked out when the pointer rests on a figure, not at every key.
bool FeedFigures::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::ToolTip) {
    const auto& feed = m_editor.answer().feed;
    if (watched == m_values[0]) {
      auto words = meterWords(feed, m_units);
      if (m_spread && !m_spread->parts.empty()) {
        const auto& shelf = m_editor.document().given.request.shelf;
        words += tr("\n\n± %1 in 19 of 20 mixes, most of it from %2.\nHalving that leaves ± %3: %4.")
                     .arg(m_units.text(core::Conductivity::fromMilliSiemensPerCm(m_spread->plusMinus)),
                          QString::fromStdString(words::errorPartText(m_spread->parts[0], shelf)),
                          m_units.digits(
                              core::Conductivity::fromMilliSiemensPerCm(core::withHalved(*m_spread, 0))),
                          QString::fromStdString(words::halvingText(m_spread->parts[0], shelf)));
      }
      m_values[0]->setToolTip(words);
    }
    if (watched == m_values[1]) m_values[1]->setToolTip(standings(feed));
  }
  return QWidget::eventFilter(watched, event);
}

void FeedFigures::showConductivity() {
  const auto& feed = m_editor.answer().feed;
  auto text = m_units.text(feed.conductivity);
  if (m_spread && m_spread->plusMinus >= 0.005) {
    // In the unit shown: "1.65 mS/cm ± 0.06".
    const double unit = feed.conductivity.milliSiemensPerCm();
    const auto wide = core::Conductivity::fromMilliSiemensPerCm(m_spread->plusMinus);
    if (unit > 0) text += " ± " + m_units.text(wide).section(' ', 0, 0);
  }
  if (feed.unstatedConductivity().milliSiemensPerCm() >= leastUnsure)
    text = "≈ " + text + tr(", up to %1").arg(m_units.text(feed.conductivity + feed.unstatedConductivity()));
  m_values[0]->setText(text);
}

/// Some milliseconds of chemistry: once the typing rests.
void FeedFigures::findSpread() {
  auto request = m_editor.document().given.request;
  request.water = m_editor.answer().waters.water;
  const auto grams = m_editor.answer().solution.grams;
  const auto errors = m_editor.answer().errors;
  if (grams.size() != request.shelf.size() || errors.weighing.size() != grams.size()) return;
  m_background.start<core::Spread>(
      [request, grams, errors] {
        return core::feedSpread(request.water, request.shelf, grams, request.volume, errors).conductivity;
      },
      [this](core::Spread found) {
        m_spread = std::move(found);
        showConductivity();
      });
}

void FeedFigures::refresh() {
  const auto& feed = m_editor.answer().feed;
  const auto& mg = feed.milligramsPerLitre;
  const auto ratio = [](double a, double b) { return b > 0 ? localNumber(a / b, 2) : QString("–"); };
  const double nitrogen = mg.of(core::Nutrient::N);
  m_ecName->setText(tr("EC at %1").arg(m_units.text(core::Temperature::fromCelsius(25))));
  m_spread.reset();
  m_background.cancel();
  m_rest.start();
  showConductivity();
  const bool unsure = feed.unstatedConductivity().milliSiemensPerCm() >= leastUnsure;
  m_values[1]->setText(feed.ph ? (unsure ? "≈ " : "") + localNumber(*feed.ph, 1) +
                                     (feed.phInAir ? " / " + localNumber(*feed.phInAir, 1) : QString())
                               : tr("not known"));
  m_values[2]->setText(QString("%1 / %2").arg(localNumber(feed.ions.cationsMeqPerL(), 1),
                                              localNumber(feed.ions.anionsMeqPerL(), 1)));
  m_values[3]->setText(feed.ph ? localNumber(feed.netAlkalinityMeqPerL, 2) + " meq/L" : tr("not known"));
  m_values[4]->setText(nitrogen > 0 ? localNumber(100 * mg.of(core::Nutrient::NAmmonium) / nitrogen, 1) + " %"
                                    : QString("–"));
  m_values[5]->setText(ratio(nitrogen, mg.of(core::Nutrient::K)));
  m_values[6]->setText(ratio(mg.of(core::Nutrient::K), mg.of(core::Nutrient::Ca)));
  // Per batch, in the grower's own currency: no sign.
  m_values[7]->setText(feed.cost ? tr("%1 per batch").arg(localNumber(*feed.cost, 2)) : tr("prices missing"));
}

} // namespace butte::app
