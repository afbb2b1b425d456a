#include "chore_record.h"

#include "record_reader.h"

#include "base/decimal.h"
#include "things/choices.h"
#include "things/figure.h"

#include <algorithm>
#include <cstdio>

namespace butte::book {

using core::ChoreDid;
using core::Day;
using core::ProblemCode;
using exchange::ObjectReader;

namespace {

constexpr exchange::Choices<ChoreDid, 3> dids{
    {{"done", ChoreDid::Done}, {"left_out", ChoreDid::LeftOut}, {"moved", ChoreDid::Moved}}};

Day dayIn(ObjectReader& reader, std::string_view key) {
  const auto text = reader.text(key).value_or("");
  const auto day = dayFromIso(text);
  if (!day) reader.fail(ProblemCode::OutOfRange, key, {"'" + text + "'", "a day such as 2026-03-02"});
  return day.value_or(Day());
}

} // namespace

std::optional<Day> dayFromIso(std::string_view text) {
  constexpr std::size_t length = 10;
  if (text.size() != length || text[4] != '-' || text[7] != '-') return std::nullopt;
  const auto number = [&](std::size_t from, std::size_t count) {
    int out = 0;
    for (const char digit : text.substr(from, count)) {
      if (digit < '0' || digit > '9') return -1;
      out = out * 10 + (digit - '0');
    }
    return out;
  };
  const int year = number(0, 4), month = number(5, 2), day = number(8, 2);
  constexpr int firstYear = 1900;
  if (year < firstYear || month < 1 || day < 1) return std::nullopt;
  const auto date = std::chrono::year(year) / month / day;
  return date.ok() ? std::optional(Day(date)) : std::nullopt;
}

std::string isoText(Day day) {
  const std::chrono::year_month_day date(day);
  char out[32];
  std::snprintf(out, sizeof out, "%04d-%02u-%02u", static_cast<int>(date.year()),
                static_cast<unsigned>(date.month()), static_cast<unsigned>(date.day()));
  return out;
}

std::string_view code(ChoreDid did) {
  return std::find_if(dids.begin(), dids.end(), [&](const auto& one) { return one.second == did; })->first;
}

core::Result<Chore> choreFromJson(const Json& json) {
  static constexpr exchange::Figure after{"after_days", "", "d", 1, mostAfterDays};
  Trouble problem;
  Chore out;
  ObjectReader reader(json, "", problem);
  out.name = neededText(reader, "name", "what is to be done");
  out.starts = dayIn(reader, "starts");
  out.repeat = reader.text("repeat").value_or("");
  if (const auto days = exchange::figure(reader, exchange::Dialect::Script, after))
    out.afterDays = static_cast<int>(*days);
  if (out.afterDays && !out.repeat.empty())
    reader.fail(ProblemCode::OutOfRange, "after_days", {"beside repeat", "one of the two"});
  out.note = reader.text("note").value_or("");
  out.icsUid = reader.text("ics_uid").value_or("");
  reader.finish();
  if (problem) return *problem;
  return out;
}

Json toJson(const Chore& chore) {
  Json out{{"name", chore.name}, {"starts", isoText(chore.starts)}};
  if (!chore.repeat.empty()) out["repeat"] = chore.repeat;
  if (chore.afterDays) out["after_days"] = *chore.afterDays;
  if (!chore.note.empty()) out["note"] = chore.note;
  if (!chore.icsUid.empty()) out["ics_uid"] = chore.icsUid;
  return out;
}

core::Result<ChoreLine> choreLineFromJson(const Json& json) {
  Trouble problem;
  ChoreLine out;
  ObjectReader reader(json, "", problem);
  out.key = neededText(reader, "chore", "the chore it is of");
  out.due = dayIn(reader, "due");
  out.at = momentIn(reader, "at");
  out.who = reader.text("who").value_or("");
  if (!reader.has("did")) reader.fail(ProblemCode::MissingKey, "did", {"what was done"});
  out.did = exchange::chosen(reader, "did", dids);
  if (out.did == ChoreDid::Moved) out.to = dayIn(reader, "to");
  out.text = reader.text("text").value_or("");
  reader.finish();
  if (problem) return *problem;
  return out;
}

Json toJson(const ChoreLine& line) {
  Json out{{"chore", line.key}, {"due", isoText(line.due)}, {"at", line.at.iso()}, {"did", code(line.did)}};
  if (!line.who.empty()) out["who"] = line.who;
  if (line.did == ChoreDid::Moved) out["to"] = isoText(line.to);
  if (!line.text.empty()) out["text"] = line.text;
  return out;
}

} // namespace butte::book
