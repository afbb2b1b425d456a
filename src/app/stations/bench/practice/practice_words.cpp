#include "stations/bench/practice/practice_words.h"

#include "edits/bench_edits.h"
#include "practice/practice_world.h"
#include "services/units_shown.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QStringList>

namespace butte::app {

using core::Mishap;
using core::MomentKind;

namespace {

QString vesselName(const BenchEdits& run, const core::Moment& moment) {
  return qtext(run.firstPlan().vessels[moment.vessel].name);
}

QString mishapHeading(const BenchEdits& run, const core::Moment& moment) {
  const auto product = run.nameOf(moment.product);
  switch (moment.mishap->mishap) {
  case Mishap::Draught:
    return moment.well ? tr("A draught at %1: the window was shut").arg(product)
                       : tr("A draught at %1 went on").arg(product);
  case Mishap::MislabelledCup:
    return moment.well ? tr("A tub with the wrong lid was seen") : tr("A tub with the wrong lid was used");
  case Mishap::WontDissolve:
    return moment.well ? tr("%1 dissolved badly, and was waited for").arg(product)
                       : tr("%1 dissolved badly, and was not waited for").arg(product);
  case Mishap::DriftingPen:
    return moment.well ? tr("Pens that showed wrong were set right")
                       : tr("Pens that showed wrong were believed");
  case Mishap::SwappedCups:
    break;
  }
  return moment.well ? tr("Of two cups the right one was taken") : tr("Of two cups the wrong one was taken");
}

QString adviceAbout(const BenchEdits& run, const UnitsShown& units, const core::PlannedMishap& mishap) {
  const auto product = run.nameOf(mishap.product), other = run.nameOf(mishap.other);
  switch (mishap.mishap) {
  case Mishap::Draught:
    return tr(
        "A display that dances tells of moving air or a shaking table: shut the window, stop the fan, wait "
        "until it is still.");
  case Mishap::MislabelledCup:
    return tr("The lid said %1, the tub held %2. Look at what is in a tub before you scoop from it: grain, "
              "dampness, the bag's own print. What is in the cup by then goes out again.")
        .arg(product, other);
  case Mishap::WontDissolve:
    return tr(
        "Nothing more goes in before it is clear: warm water, time, a paddle or a pump. What lies on the "
        "floor does not reach the plants, and it spoils the next salt.");
  case Mishap::DriftingPen:
    return tr("A pen is believed only after a standard: EC %1, pH 7 and 4. Two minutes, once a week.")
        .arg(units.text(sim::penStandard()));
  case Mishap::SwappedCups:
    break;
  }
  return tr("The nearer cup held %1. A cup carries its label until it is empty; read it with it in your "
            "hand.")
      .arg(other);
}

} // namespace

QString momentHeading(const BenchEdits& run, const core::Moment& moment) {
  const auto product = run.nameOf(moment.product);
  const auto mark = moment.well ? QString("✓ ") : QString("▲ ");
  switch (moment.kind) {
  case MomentKind::GearBeforeSalt:
    return mark + tr("Goggles, gloves and mask before the first salt");
  case MomentKind::WaterBeforeAcid:
    return mark + tr("Acid into water");
  case MomentKind::ClearBeforeNext:
    return mark + (moment.well ? tr("Each salt clear before the next")
                               : tr("%1 was called clear and was not").arg(product));
  case MomentKind::PenChecked:
    return mark + tr("Pens checked in a standard before they were read");
  case MomentKind::Weighed:
    return mark + tr("%1 weighs otherwise than was told").arg(product);
  case MomentKind::Mishap:
    break;
  }
  return mark + mishapHeading(run, moment);
}

QString momentText(const BenchEdits& run, const UnitsShown& units, const core::Moment& moment) {
  QStringList lines;
  if (moment.toldMass && moment.trueMass)
    lines << tr("Told: %1. In the cup: %2.").arg(units.text(*moment.toldMass), units.text(*moment.trueMass));
  else if (moment.trueMass && moment.mishap)
    lines << tr("%1 of %2 went into %3.")
                 .arg(units.text(*moment.trueMass), run.nameOf(moment.mishap->other),
                      vesselName(run, moment));
  if (moment.toldReading && moment.trueReading)
    lines << tr("Told: EC %1. In truth: %2.")
                 .arg(units.text(*moment.toldReading), units.text(*moment.trueReading));
  switch (moment.kind) {
  case MomentKind::GearBeforeSalt:
    lines << tr(
        "Dust of nitrates and trace salts harms eyes and lungs, acid harms at once: gear comes before the "
        "first tub is opened. The label and its safety data sheet say which.");
    break;
  case MomentKind::WaterBeforeAcid:
    lines << tr("Water poured onto acid boils and spits. Water first, the acid slowly into it.");
    break;
  case MomentKind::ClearBeforeNext:
    lines << tr(
        "Grains are told from clear water by a torch from the side. Salts that meet as grains can form what "
        "never dissolves again.");
    break;
  case MomentKind::PenChecked:
    lines << adviceAbout(run, units, {Mishap::DriftingPen, 0, 0, 0});
    break;
  case MomentKind::Weighed:
    lines << tr(
        "A weight is told when the display is still, the tare is right and nothing leans on the cup.");
    break;
  case MomentKind::Mishap:
    lines << adviceAbout(run, units, *moment.mishap);
    break;
  }
  return lines.join("\n");
}

} // namespace butte::app
