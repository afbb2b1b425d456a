/// What the Tank station has worked out and read behind the window's thread.
#include "document/book_desk.h"
#include "document/vessel_readings.h"
#include "fields/filling_combo.h"
#include "stations/tank/tank_page.h"
#include "stations/tank/tank_picture.h"

namespace butte::app {

/// Behind the window's thread: a year of readings takes longer than a keystroke.
void TankPage::work() {
  TankGiven given;
  given.facts = m_log.facts;
  for (const auto& [ref, line] : m_log.lines) {
    given.lines.push_back(line);
    if (!line.formulaUid.empty())
      given.formulas[{line.formulaUid, line.formulaVersion}] =
          m_edits.formula(line.formulaUid, line.formulaVersion);
  }
  given.formulas[{given.facts.formulaUid, 0}] = m_edits.formula(given.facts.formulaUid, 0);
  given.now = book::Moment::now();
  m_given.facts = given.facts;
  const auto read = [given = std::move(given), path = m_desk.book().place(), uid = m_vessel] {
    TankTold out{given, {}, {}};
    auto found = vesselReadingsBeside(path, uid);
    if (!found) {
      out.trouble = found.problem();
      return out;
    }
    auto readings = std::move(found).value();
    out.given.readings = std::move(readings.readings);
    out.given.doubted = std::move(readings.doubted);
    out.given.thinned = readings.thinned;
    out.story = tankStory(out.given);
    return out;
  };
  m_work.start<TankTold>(read, [this](TankTold told) { take(std::move(told)); });
}

void TankPage::layOver() {
  constexpr std::int64_t year = 365LL * 86400;
  const auto uid = m_over->currentData().toString().toStdString();
  if (uid.empty()) return m_picture->layOver({}, {}, 0);
  m_look.start<VesselReadings>(
      [path = m_desk.book().place(), uid] {
        auto found = vesselReadingsBeside(path, uid);
        return found ? std::move(found).value() : VesselReadings();
      },
      [this, name = m_over->currentText(), later = uid == m_vessel ? year : 0](VesselReadings found) {
        m_picture->layOver(name, found.readings, later);
      });
}

/// Where the book holds more readings than the story was told from, the stretch in view is read as closely as
/// it can be shown.
void TankPage::lookCloser() {
  if (!m_given.thinned || !m_desk.isOpen() || m_vessel.empty()) return;
  const auto from = m_picture->from(), to = m_picture->to(), width = m_picture->secondsPerDot();
  m_look.start<CloseReadings>([path = m_desk.book().place(), uid = m_vessel, from, to,
                               width] { return closeReadingsBeside(path, uid, from, to, width); },
                              [this](const CloseReadings& close) { m_picture->showCloser(close); });
}

} // namespace butte::app
