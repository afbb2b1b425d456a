#include "stream_readers.h"

#include "json_reader.h"
#include "readers.h"
#include "stream.h"
#include "stream/growing_csv.h"
#include "stream/line_samples.h"
#include "stream/modbus_register.h"
#include "stream/stream_address.h"
#include "stream/stream_gate.h"
#include "stream_source.h"

#include <cmath>

namespace butte::attack {

using namespace devices;

namespace {

constexpr std::int64_t now = 1772608500;

/// Whatever figures come: what is kept as sound can be, times go forward, and nothing goes uncounted.
void passTheGate(const std::vector<double>& figures, std::string_view text) {
  for (const char* quantity : {"ec", "ph", "level", "temperature"}) {
    const auto rules = gateRulesFor(quantity, 900);
    StreamGate gate(rules);
    std::int64_t at = now - 86400;
    std::size_t kept = 0;
    const auto check = [&](const std::vector<KeptSample>& all) {
      for (const auto& one : all) {
        ++kept;
        if (one.mark == SampleMark::Sound && !(one.value >= rules.least && one.value <= rules.most))
          broken("what is kept as sound can be", text);
        if (!std::isfinite(one.value)) broken("what is kept is a figure", text);
      }
    };
    for (const double figure : figures)
      check(gate.take(at += 61, figure, now));
    check(gate.close());
    if (gate.heard() != static_cast<std::int64_t>(figures.size()))
      broken("everything heard is counted", text);
    if (kept > 2 * figures.size() + 1) broken("no more is kept than was heard", text);
  }
}

void lookAtSamples(const std::vector<StreamSample>& samples, std::vector<double>& figures,
                   std::string_view text) {
  for (const auto& sample : samples) {
    const auto figure = saidFigure(sample.text);
    if (figure && !std::isfinite(figure->value)) broken("a figure is one", text);
    if (figure) figures.push_back(figure->value);
  }
}

} // namespace

bool takeStreamFile(std::string_view text) {
  GrowingCsv whole(DateOrder::DayFirst), pieces(DateOrder::DayFirst);
  const auto atOnce = whole.take(text);
  std::vector<StreamRow> rows;
  std::vector<std::string> unread;
  for (std::size_t at = 0, size = 1; at < text.size(); at += size, size = size % 7 + 1) {
    auto taken = pieces.take(text.substr(at, size));
    rows.insert(rows.end(), taken.rows.begin(), taken.rows.end());
    unread.insert(unread.end(), taken.unread.begin(), taken.unread.end());
  }
  if (unread != atOnce.unread || rows.size() != atOnce.rows.size())
    broken("a table is the same in whatever pieces it comes", text);
  std::vector<double> figures;
  for (std::size_t i = 0; i < rows.size(); ++i) {
    if (rows[i].samples != atOnce.rows[i].samples || rows[i].at != atOnce.rows[i].at)
      broken("a row is the same in whatever pieces it comes", text);
    lookAtSamples(rows[i].samples, figures, text);
  }
  passTheGate(figures, text);
  return !rows.empty();
}

bool takeStreamLines(std::string_view text) {
  std::vector<double> figures;
  bool taken = false;
  for (std::size_t from = 0; from < text.size();) {
    const auto end = std::min(text.find('\n', from), text.size());
    const auto line = text.substr(from, end - from);
    from = end + 1;
    lookAtSamples(lineSamples(line), figures, text);
    const auto payload = ports::jsonSamples(QByteArray(line.data(), static_cast<qsizetype>(line.size())));
    lookAtSamples(payload, figures, text);
    taken = taken || !figures.empty();
    const auto place = ModbusRegister::parse(line);
    if (!place)
      refused(place.problem(), text);
    else if (ModbusRegister::parse(place->text()).value() != *place)
      broken("a register is written as it is read", text);
    const auto address = StreamAddress::parse(line);
    if (!address) {
      refused(address.problem(), text);
    } else {
      const auto again = StreamAddress::parse(address->text());
      if (!again || *again != *address) broken("an address is written as it is read", text);
    }
    for (const auto order : {DateOrder::DayFirst, DateOrder::MonthFirst}) {
      const auto time = parseLoggedTime(line, order, true);
      const auto* civil = std::get_if<CivilTime>(&time);
      if (civil &&
          (civil->month < 1 || civil->month > 12 || civil->day < 1 || civil->day > 31 || civil->hour > 23))
        broken("a time is one that a calendar has", text);
    }
  }
  passTheGate(figures, text);
  return taken;
}

bool takeStream(std::string_view text) {
  const auto json = exchange::parseJsonObject(text);
  if (!json) return refused(json.problem(), text);
  const auto stream = book::streamFromJson(*json);
  if (!stream) return refused(stream.problem(), text);
  const auto again = book::streamFromJson(toJson(*stream));
  if (!again || *again != *stream) broken("a logger is read as it was written", text);
  for (const auto& channel : stream->channels)
    if (const auto kept = book::keptOf(channel, {}, 1.5); !kept) refused(kept.problem(), text);
  return true;
}

} // namespace butte::attack
