#include "stream/stream_address.h"

#include "stream/stream_row.h"

#include <charconv>

namespace butte::devices {

namespace {

constexpr std::string_view fileWord = "file:", modbusWord = "modbus:", mqttWord = "mqtt:",
                           unitWord = " unit ";
constexpr std::string_view everyTopic = "#";

bool takePrefix(std::string_view& text, std::string_view prefix) {
  if (text.substr(0, prefix.size()) != prefix) return false;
  text.remove_prefix(prefix.size());
  return true;
}

core::Problem wrong(std::string_view part, const char* right) {
  return core::problemAt(core::ProblemCode::NotOneOf, "address", {std::string(part), right});
}

bool hasControls(std::string_view text) {
  for (const char c : text)
    if (static_cast<unsigned char>(c) < 0x20 || c == 0x7F) return true;
  return false;
}

core::Result<StreamAddress> fileAddress(std::string_view path) {
  StreamAddress out;
  out.path = path;
  if (path.empty() || path.front() != '/' || hasControls(path))
    return wrong(path, "the whole path of a file, as in file:/home/anna/logger.csv");
  return out;
}

core::Result<StreamAddress> modbusAddress(std::string_view text) {
  StreamAddress out;
  out.kind = StreamAddress::Kind::Modbus;
  if (const auto at = text.rfind(unitWord); at != std::string_view::npos) {
    const auto number = trimmed(text.substr(at + unitWord.size()));
    constexpr int mostUnit = 247;
    const auto [end, error] = std::from_chars(number.data(), number.data() + number.size(), out.modbusUnit);
    if (error != std::errc() || end != number.data() + number.size() || out.modbusUnit < 1 ||
        out.modbusUnit > mostUnit)
      return wrong(number, "the device's unit number, 1 to 247");
    text = text.substr(0, at);
  }
  const auto port = PortAddress::parse(trimmed(text));
  if (!port) return wrong(text, "modbus:tcp:192.168.1.30:502 or modbus:serial:/dev/ttyUSB0,19200,8E1 unit 1");
  out.port = *port;
  return out;
}

/// Levels by slashes; # alone at the end, + alone between (MQTT 3.1.1, 4.7).
bool isTopicFilter(std::string_view topic) {
  if (topic.empty() || topic.size() > 1000 || hasControls(topic)) return false;
  for (std::size_t i = 0; i < topic.size(); ++i) {
    const bool begins = i == 0 || topic[i - 1] == '/', ends = i + 1 == topic.size() || topic[i + 1] == '/';
    if (topic[i] == '#' && (!begins || i + 1 != topic.size())) return false;
    if (topic[i] == '+' && (!begins || !ends)) return false;
  }
  return true;
}

core::Result<StreamAddress> mqttAddress(std::string_view text) {
  constexpr auto right = "mqtt:broker:1883/glass/pump/#, a user's name before an @";
  constexpr int usualPort = 1883;
  StreamAddress out;
  out.kind = StreamAddress::Kind::Mqtt;
  const auto slash = text.find('/');
  auto host = text.substr(0, slash);
  out.topic = slash == std::string_view::npos ? everyTopic : text.substr(slash + 1);
  if (!isTopicFilter(out.topic)) return wrong(out.topic, "a topic, as in glass/pump/#");
  if (const auto at = host.rfind('@'); at != std::string_view::npos) {
    out.user = host.substr(0, at);
    host.remove_prefix(at + 1);
  }
  const auto whole = host.find(':') == std::string_view::npos
                         ? std::string(host) + ":" + std::to_string(usualPort)
                         : std::string(host);
  const auto port = PortAddress::parse("tcp:" + whole);
  if (!port || hasControls(host)) return wrong(host, right);
  out.port = *port;
  return out;
}

} // namespace

core::Result<StreamAddress> StreamAddress::parse(std::string_view text) {
  text = trimmed(text);
  if (takePrefix(text, fileWord)) return fileAddress(text);
  if (takePrefix(text, modbusWord)) return modbusAddress(text);
  if (takePrefix(text, mqttWord)) return mqttAddress(text);
  const auto port = PortAddress::parse(text);
  if (!port || text.front() == '/')
    return wrong(text,
                 "file:/path, tcp:host:port, serial:/dev/..., modbus:tcp:host:port or mqtt:broker/topic");
  StreamAddress out;
  out.kind = Kind::Lines;
  out.port = *port;
  return out;
}

std::string StreamAddress::text() const {
  switch (kind) {
  case Kind::File:
    return std::string(fileWord) + path;
  case Kind::Lines:
    return port.text();
  case Kind::Modbus:
    return std::string(modbusWord) + port.text() + std::string(unitWord) + std::to_string(modbusUnit);
  case Kind::Mqtt:
    return std::string(mqttWord) + (user.empty() ? "" : user + "@") + port.path + ":" +
           std::to_string(port.tcpPort) + "/" + topic;
  }
  return {};
}

} // namespace butte::devices
