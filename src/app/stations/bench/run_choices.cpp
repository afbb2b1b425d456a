#include "stations/bench/run_choices.h"

#include "edits/bench_edits.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "run/run_advice.h"
#include "services/units_shown.h"
#include "stations/bench/run_words.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>

namespace butte::app {

namespace {
constexpr int choiceWidth = 230, wordsSize = 15;

std::optional<core::Overshoot> overshootIn(const BenchEdits& run) {
  const auto next = run.at();
  if (next.phase != core::RunPhase::Decide) return std::nullopt;
  return core::overshootOf(run.plan(), run.state(), next.vessel, next.step);
}

std::size_t productIn(const BenchEdits& run) {
  const auto next = run.at();
  return run.plan().vessels[next.vessel].steps[next.step].product;
}
} // namespace

QPushButton* gloveButton(const QString& words, const char* name) {
  auto* button = new QPushButton(words);
  button->setObjectName(name);
  button->setMinimumHeight(gloveHeight);
  button->setFont(faceOf(wordsSize, true));
  return button;
}

RunChoices::RunChoices(const BenchEdits& run, const UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_run(run), m_units(units) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  m_takeOut = make(tr("Take it out again"), "runTakeOut", [this]() -> core::RunDeed {
    return core::did::TakenOut{productIn(m_run), overshootIn(m_run)->takeOut};
  });
  m_accept = make(tr("Accept it"), "runAccept", [this]() -> core::RunDeed {
    return core::did::Accepted{productIn(m_run), m_run.at().vessel};
  });
  m_larger = make(tr("Make all of it more"), "runLarger", [this]() -> core::RunDeed {
    return core::did::Rescaled{overshootIn(m_run)->rescale.ratio};
  });
}

RunChoices::Choice RunChoices::make(const QString& words, const char* name,
                                    std::function<core::RunDeed()> deed) {
  Choice out{new QWidget, new WrappedLabel};
  auto* row = new QHBoxLayout(out.row);
  row->setContentsMargins(0, 0, 0, 0);
  auto* button = gloveButton(words, name);
  button->setFixedWidth(choiceWidth);
  connect(button, &QPushButton::clicked, this, [this, deed = std::move(deed)] {
    if (overshootIn(m_run) && onChosen) onChosen(deed());
  });
  out.cost->setObjectName(QString(name) + "Cost");
  out.cost->setFont(faceOf(wordsSize));
  row->addWidget(button);
  row->addWidget(out.cost, 1);
  layout()->addWidget(out.row);
  return out;
}

void RunChoices::refresh() {
  const auto over = overshootIn(m_run);
  setVisible(over.has_value());
  if (!over) return;
  m_takeOut.row->setVisible(over->takeOut > core::Mass{});
  m_takeOut.cost->setText(tr("%1, while it lies dry in the cup").arg(m_units.text(over->takeOut)));
  m_accept.cost->setText(acceptedWords(*over, m_units));
  QStringList volumes;
  for (std::size_t v = 0; v < over->rescale.volumes.size(); ++v)
    volumes << tr("%1 of %2")
                   .arg(m_units.stockText(over->rescale.volumes[v]), qtext(m_run.plan().vessels[v].name));
  constexpr int ratioDecimals = 3;
  m_larger.cost->setText(tr("%1 times the plan, in the same proportions: %2")
                             .arg(localNumber(over->rescale.ratio, ratioDecimals), volumes.join(", ")));
}

} // namespace butte::app
