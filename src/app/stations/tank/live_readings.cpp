#include "stations/tank/live_readings.h"

#include "services/units_shown.h"
#include "streams/stream_desk.h"
#include "wording/record_words.h"
#include "wording/tr.h"

namespace butte::app {

std::map<std::string, book::Reading> liveReadings(const StreamDesk& streams, const std::string& vessel,
                                                  std::map<std::string, book::Reading> last) {
  for (const auto* live : streams.ofVessel(vessel))
    for (const auto* quantity : {"ec", "ph", "level", "temperature"})
      if (const auto value = live->now(vessel, quantity)) {
        book::Reading now;
        now.quantity = quantity;
        now.value = *value;
        now.at = book::Moment::now();
        if (now.quantity == "ph") now.typed = localNumber(*value, 2).toStdString();
        last[quantity] = now;
      }
  return last;
}

QString loggerTrouble(const StreamDesk& streams, const std::string& vessel, book::Moment now) {
  constexpr std::int64_t silentSeconds = 1800;
  for (const auto* live : streams.ofVessel(vessel)) {
    const auto name = qtext(live->setting().stream.name);
    if (live->state() != ports::StreamSource::State::Open) return tr("▲ %1 is not there").arg(name);
    if (const auto stuck = live->stuckKey(); !stuck.empty()) return tr("▲ %1 hangs").arg(qtext(stuck));
    const auto silent = live->silentSeconds(now.seconds);
    if (silent && *silent > silentSeconds) return tr("▲ %1 is silent").arg(name);
  }
  return {};
}

} // namespace butte::app
