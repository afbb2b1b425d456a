#include "port/port_address.h"

#include "base/problem.h"

#include <array>
#include <charconv>
#include <optional>

namespace butte::devices {

using core::problemAt;
using core::ProblemCode;

namespace {

constexpr auto addressKey = "address";
constexpr int mostTcpPort = 65535, leastBaud = 50, mostBaud = 4000000;

std::optional<int> wholeNumber(std::string_view text, int least, int most) {
  int value = 0;
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
  if (error != std::errc() || end != text.data() + text.size() || value < least || value > most)
    return std::nullopt;
  return value;
}

core::Problem badPart(std::string_view part, const char* right) {
  return problemAt(ProblemCode::NotOneOf, addressKey, {std::string(part), right});
}

core::Result<PortAddress> tcp(std::string_view rest) {
  PortAddress out;
  out.kind = PortAddress::Kind::Tcp;
  const auto colon = rest.rfind(':');
  const auto port =
      colon == std::string_view::npos ? std::nullopt : wholeNumber(rest.substr(colon + 1), 1, mostTcpPort);
  if (!port || colon == 0) return badPart(rest, "tcp:host:port, as in tcp:192.168.1.20:4001");
  out.path = rest.substr(0, colon);
  out.tcpPort = *port;
  return out;
}

/// "8N1"
bool takeFrame(std::string_view frame, PortAddress& out) {
  constexpr std::size_t letters = 3;
  if (frame.size() != letters) return false;
  const auto data = wholeNumber(frame.substr(0, 1), 7, 8), stop = wholeNumber(frame.substr(2, 1), 1, 2);
  const char parity = frame[1];
  if (!data || !stop || (parity != 'N' && parity != 'E' && parity != 'O')) return false;
  out.dataBits = *data;
  out.stopBits = *stop;
  out.parity = parity == 'E' ? Parity::Even : parity == 'O' ? Parity::Odd : Parity::None;
  return true;
}

core::Result<PortAddress> serial(std::string_view rest) {
  PortAddress out;
  const auto first = rest.find(',');
  out.path = rest.substr(0, first);
  if (out.path.empty() || out.path.front() != '/' || out.path.find('\0') != std::string::npos)
    return badPart(rest, "serial:/dev/..., as in serial:/dev/ttyUSB0");
  if (first == std::string_view::npos) return out;
  const auto parts = rest.substr(first + 1);
  const auto second = parts.find(',');
  const auto baud = wholeNumber(parts.substr(0, second), leastBaud, mostBaud);
  if (!baud) return badPart(parts.substr(0, second), "the baud rate, such as 9600");
  out.baud = *baud;
  if (second != std::string_view::npos && !takeFrame(parts.substr(second + 1), out))
    return badPart(parts.substr(second + 1), "data bits, parity and stop bits, such as 8N1 or 7E1");
  return out;
}

} // namespace

core::Result<PortAddress> PortAddress::parse(std::string_view text) {
  constexpr std::string_view serialWord = "serial:", tcpWord = "tcp:";
  if (text.substr(0, serialWord.size()) == serialWord) return serial(text.substr(serialWord.size()));
  if (text.substr(0, tcpWord.size()) == tcpWord) return tcp(text.substr(tcpWord.size()));
  if (!text.empty() && text.front() == '/') return serial(text);
  return badPart(text, "serial:/dev/ttyUSB0 or tcp:host:port");
}

std::string PortAddress::text() const {
  if (kind == Kind::Tcp) return "tcp:" + path + ":" + std::to_string(tcpPort);
  const char letter = parity == Parity::Even ? 'E' : parity == Parity::Odd ? 'O' : 'N';
  return "serial:" + path + "," + std::to_string(baud) + "," + std::to_string(dataBits) + letter +
         std::to_string(stopBits);
}

} // namespace butte::devices
