#include "stations/bench/run_stray.h"

#include "edits/bench_edits.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "refresh/while_seen.h"
#include "stations/bench/run_choices.h"
#include "stations/bench/run_trouble_words.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace butte::app {

namespace {
constexpr int strayWordsSize = 16;
} // namespace

RunStray::RunStray(const BenchEdits& run, const UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_run(run), m_units(units), m_words(new WrappedLabel),
      m_leaveOut(gloveButton({}, "runLeaveOut")),
      m_discard(gloveButton(tr("Pour it away and make it anew"), "runDiscard")) {
  m_words->setObjectName("runTrouble");
  m_words->setFont(faceOf(strayWordsSize, true));
  restyle(*m_words, QString("color:%1").arg(theme().red.name()));
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  for (QWidget* part : std::initializer_list<QWidget*>{m_words, m_leaveOut, m_discard})
    column->addWidget(part);
  connect(m_leaveOut, &QPushButton::clicked, this, &RunStray::leaveOut);
  connect(m_discard, &QPushButton::clicked, this, [this] {
    if (m_stray) onDeeds({core::did::Discarded{m_stray->vessel}});
  });
}

void RunStray::leaveOut() {
  if (!m_stray || !m_stray->lackedBy) return;
  onDeeds({core::did::Skipped{m_stray->product, *m_stray->lackedBy},
           core::did::Accepted{m_stray->product, m_stray->vessel}});
}

void RunStray::refresh() {
  const auto strays = core::misplacedIn(m_run.plan(), m_run.state());
  setVisible(!strays.empty());
  m_words->setText({});
  if (strays.empty()) return;
  const auto words = runTroubleWords(m_run, m_units);
  m_stray = words.to ? *words.to : strays.front();
  m_words->setText(words.text);
  m_discard->setVisible(words.spoilt);
  m_leaveOut->setVisible(words.to && !words.spoilt);
  if (words.to)
    m_leaveOut->setText(tr("It counts for %1: leave it out there")
                            .arg(qtext(m_run.plan().vessels[*words.to->lackedBy].name)));
}

} // namespace butte::app
