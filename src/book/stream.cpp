#include "stream.h"

#include "base/decimal.h"
#include "reading.h"
#include "stream/stream_address.h"
#include "units/convert.h"

#include <algorithm>

namespace butte::book {

using core::problemAt;
using core::ProblemCode;
using exchange::ObjectReader;

namespace {

constexpr auto centimetres = "cm", percent = "%", levelCode = "level";

std::string joined(const std::vector<std::string>& units) {
  std::string out;
  for (const auto& unit : units)
    out += (out.empty() ? "" : ", ") + (unit.empty() ? std::string("none") : unit);
  return out;
}

StreamChannel readChannel(const Json& json, const std::string& path, Trouble& problem) {
  StreamChannel out;
  ObjectReader reader(json, path, problem);
  out.key = reader.text("key").value_or("");
  if (out.key.empty()) reader.fail(ProblemCode::MissingKey, "key", {"the name that the figure has there"});
  out.vesselUid = reader.text("vessel").value_or("");
  out.quantity = reader.text("quantity").value_or("");
  const auto* quantity = quantityFrom(out.quantity);
  if (!quantity) {
    std::vector<std::string> codes;
    for (const auto& known : quantities())
      codes.emplace_back(known.code);
    reader.fail(ProblemCode::NotOneOf, "quantity", {out.quantity, joined(codes)});
  }
  out.unit = reader.text("unit").value_or("");
  const auto units = sentUnits(out.quantity);
  if (quantity && std::find(units.begin(), units.end(), out.unit) == units.end())
    reader.fail(ProblemCode::NotOneOf, "unit", {out.unit, joined(units)});
  out.factor = reader.text("factor").value_or("");
  const auto factor = core::parseDecimal(out.factor);
  if (!out.factor.empty() && (!factor || !core::isFigure(*factor) || *factor == 0))
    reader.fail(ProblemCode::OutOfRange, "factor", {"'" + out.factor + "'", "a number such as 0.01"});
  reader.finish();
  return out;
}

} // namespace

std::vector<std::string> sentUnits(std::string_view code) {
  std::vector<std::string> out;
  const auto* quantity = quantityFrom(code);
  if (!quantity) return out;
  for (const auto unit : quantity->typed)
    out.emplace_back(unit);
  if (code == levelCode) out.insert(out.end(), {centimetres, percent});
  return out;
}

core::Result<Stream> streamFromJson(const Json& json) {
  Trouble problem;
  Stream out;
  ObjectReader reader(json, "", problem);
  out.name = reader.text("name").value_or("");
  if (out.name.empty()) reader.fail(ProblemCode::MissingKey, "name", {"a logger needs a name"});
  out.address = reader.text("address").value_or("");
  if (const auto address = devices::StreamAddress::parse(out.address); !address && !problem)
    problem = address.problem();
  out.monthFirst = reader.flag("month_first").value_or(false);
  const double every = reader.number("every_minutes").value_or(out.everyMinutes);
  if (!(every >= leastEveryMinutes && every <= mostEveryMinutes) || every != static_cast<int>(every))
    reader.fail(ProblemCode::OutsideLimits, "every_minutes",
                {core::decimalText(every), std::to_string(leastEveryMinutes),
                 std::to_string(mostEveryMinutes), "min"});
  else
    out.everyMinutes = static_cast<int>(every);
  if (const auto* channels = reader.array("channels")) {
    reader.mostIn("channels", mostChannels);
    for (std::size_t i = 0; i < channels->size() && !problem; ++i)
      out.channels.push_back(readChannel((*channels)[i], "channels[" + std::to_string(i) + "]", problem));
  }
  reader.finish();
  if (problem) return *problem;
  return out;
}

Json toJson(const Stream& stream) {
  Json out{{"name", stream.name}, {"address", stream.address}, {"every_minutes", stream.everyMinutes}};
  if (stream.monthFirst) out["month_first"] = true;
  auto channels = Json::array();
  for (const auto& channel : stream.channels) {
    Json one{{"key", channel.key}};
    if (!channel.vesselUid.empty()) one["vessel"] = channel.vesselUid;
    one["quantity"] = channel.quantity;
    one["unit"] = channel.unit;
    if (!channel.factor.empty()) one["factor"] = channel.factor;
    channels.push_back(std::move(one));
  }
  out["channels"] = std::move(channels);
  return out;
}

core::Result<double> keptOf(const StreamChannel& channel, const VesselFacts& vessel, double sent) {
  const double value = sent * core::parseDecimal(channel.factor).value_or(1);
  const auto* quantity = quantityFrom(channel.quantity);
  if (!quantity) return problemAt(ProblemCode::NotOneOf, "quantity", {channel.quantity, "ec, ph, level ..."});
  if (channel.unit == quantity->unit || quantity->unit.empty()) return value;
  if (channel.quantity == levelCode && channel.unit == centimetres) {
    const auto volume = vessel.volumeAt(value);
    if (!volume)
      return problemAt(ProblemCode::MissingKey, "measures",
                       {"the vessel's inner measures, for a level in cm"});
    return volume->litres();
  }
  if (channel.quantity == levelCode && channel.unit == percent) {
    if (!(vessel.fullVolume() > core::Volume{}))
      return problemAt(ProblemCode::MissingKey, "volume",
                       {"the vessel's full mark, for a level in per cent"});
    return vessel.fullVolume().litres() * value / 100;
  }
  return core::convert(value, channel.unit, quantity->unit);
}

} // namespace butte::book
