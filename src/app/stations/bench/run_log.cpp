#include "stations/bench/run_words.h"

#include "edits/bench_edits.h"
#include "services/units_shown.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QDateTime>
#include <QLocale>

namespace butte::app {

namespace {

struct EventWords {
  const BenchEdits& run;
  const UnitsShown& units;

  QString vessel(std::size_t v) const { return qtext(run.plan().vessels[v].name); }
  QString operator()(const core::did::Prepared&) const { return tr("all stands ready"); }
  QString operator()(const core::did::Discarded& d) const {
    return tr("%1 poured away").arg(vessel(d.vessel));
  }
  QString operator()(const core::did::Poured& d) const {
    return tr("%1 of water into %2").arg(units.stockText(d.volume), vessel(d.vessel));
  }
  QString operator()(const core::did::Weighed& d) const {
    return d.lot.empty()
               ? tr("%1 %2 weighed").arg(units.text(d.mass), run.nameOf(d.product))
               : tr("%1 %2 weighed, lot %3").arg(units.text(d.mass), run.nameOf(d.product), qtext(d.lot));
  }
  QString operator()(const core::did::TakenOut& d) const {
    return tr("%1 %2 taken out again").arg(units.text(d.mass), run.nameOf(d.product));
  }
  QString operator()(const core::did::Tipped& d) const {
    return tr("%1 tipped into %2").arg(run.nameOf(d.product), vessel(d.vessel));
  }
  QString operator()(const core::did::Clear& d) const {
    return tr("%1 dissolved").arg(run.nameOf(d.product));
  }
  QString operator()(const core::did::Skipped& d) const {
    return tr("%1 skipped").arg(run.nameOf(d.product));
  }
  QString operator()(const core::did::Substituted& d) const {
    return tr("%1 %2 instead of what is missing of %3")
        .arg(units.text(d.mass), run.nameOf(d.by), run.nameOf(d.product));
  }
  QString operator()(const core::did::Accepted& d) const {
    return tr("%1 accepted as it is").arg(run.nameOf(d.product));
  }
  QString operator()(const core::did::Rescaled& d) const {
    return tr("all made %1 times the plan").arg(localNumber(d.ratio, 3));
  }
  QString operator()(const core::did::ToppedUp& d) const {
    return tr("%1 made up to %2").arg(vessel(d.vessel), units.stockText(d.volume));
  }
  QString operator()(const core::did::Read& d) const {
    QStringList read;
    if (d.conductivity) read << tr("EC %1").arg(units.text(*d.conductivity));
    if (d.ph) read << tr("pH %1").arg(localNumber(*d.ph, 1));
    return tr("%1 reads %2").arg(vessel(d.vessel), read.join(", "));
  }
  QString operator()(const core::did::Paused&) const { return tr("paused"); }
  QString operator()(const core::did::Resumed&) const { return tr("gone on"); }
  QString operator()(const core::did::HandedOver& d) const {
    return tr("handed over to %1").arg(qtext(d.to));
  }
  QString operator()(const core::did::Struck&) const { return {}; }
  QString operator()(const core::did::Finished&) const { return tr("finished"); }
};

} // namespace

QStringList runLog(const BenchEdits& run, const UnitsShown& units, int most) {
  const auto& events = run.events();
  std::vector<bool> struck(events.size(), false);
  for (std::size_t i = 0; i < events.size(); ++i)
    if (const auto* strike = std::get_if<core::did::Struck>(&events[i].deed))
      struck[i] = struck[strike->event] = true;
  QStringList out;
  for (auto i = events.size(); i > 0 && out.size() < most; --i) {
    if (struck[i - 1]) continue;
    const auto& event = events[i - 1];
    const auto when = QLocale().toString(QDateTime::fromMSecsSinceEpoch(event.atMilliseconds), "HH:mm");
    const auto by = event.by.empty() ? QString() : " " + qtext(event.by);
    out << when + by + "  " + std::visit(EventWords{run, units}, event.deed);
  }
  return out;
}

} // namespace butte::app
