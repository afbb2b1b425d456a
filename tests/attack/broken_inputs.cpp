#include "broken_inputs.h"

#include <algorithm>
#include <array>
#include <cctype>

namespace butte::attack {
namespace {

using namespace std::string_literals;

const std::array figures{"1e-160"s,  "1e160"s,       "5e-324"s,    "1.7976931348623157e308"s,
                         "-1"s,      "0"s,           "-0.0"s,      "2147483648"s,
                         "2e9"s,     "NaN"s,         "null"s,      "true"s,
                         "\"\""s,    "[]"s,          "{}"s,        "1e999"s,
                         "0.1e-15"s, "99999999999"s, "\"1,5\""s,   "\"<3\""s,
                         "1/0"s,     "½"s,           "\"1e-320\""s};
const std::array names{"<img src=/dev/zero>"s,
                       "=1+1"s,
                       "\x1b[2J"s,
                       "\xff\xfe"s,
                       "\0"s,
                       "../../etc/passwd"s,
                       "'; DROP TABLE thing; --"s,
                       "\u202e"s,
                       "\r\n"s,
                       "%1%n%s"s,
                       "{}{0}"s,
                       "\\u0000"s,
                       "\""s};

} // namespace

std::string BrokenInputs::from(const std::string& valid) {
  auto out = valid;
  const auto changes = 1 + below(4);
  for (std::size_t i = 0; i < changes; ++i)
    change(out);
  return out;
}

void BrokenInputs::change(std::string& text) {
  if (text.empty()) text = "x";
  switch (below(8)) {
  case 0:
    text[below(text.size())] = static_cast<char>(m_random());
    break;
  case 1:
  case 2:
    figure(text);
    break;
  case 3:
    text.insert(below(text.size()), names[below(names.size())]);
    break;
  case 4:
    nest(text);
    break;
  case 5:
    text.resize(below(text.size()));
    break;
  default:
    piece(text);
    break;
  }
}

/// Another figure where one stands.
void BrokenInputs::figure(std::string& text) {
  const auto from = below(text.size());
  const auto digit = std::find_if(text.begin() + static_cast<std::ptrdiff_t>(from), text.end(),
                                  [](unsigned char c) { return std::isdigit(c); });
  const auto end =
      std::find_if(digit, text.end(), [](unsigned char c) { return !std::isdigit(c) && c != '.'; });
  text.replace(static_cast<std::size_t>(digit - text.begin()), static_cast<std::size_t>(end - digit),
               figures[below(figures.size())]);
}

/// A piece doubled, many times now and then, moved or left out.
void BrokenInputs::piece(std::string& text) {
  const auto from = below(text.size());
  const auto part = text.substr(from, 1 + below(80));
  switch (below(4)) {
  case 0:
    text.erase(from, part.size());
    break;
  case 1:
    for (std::size_t i = below(200); i > 0; --i)
      text.insert(from, part);
    break;
  default:
    text.insert(below(text.size()), part);
    break;
  }
}

void BrokenInputs::nest(std::string& text) {
  const auto at = below(text.size());
  const auto deep = below(3) == 0 ? 100000 : 70;
  const bool list = below(2) == 0;
  std::string open, close;
  for (int i = 0; i < deep; ++i) {
    open += list ? "[" : "{\"x\":";
    close += list ? "]" : "}";
  }
  text.insert(at, below(2) == 0 ? open + "1" + close : open);
}

} // namespace butte::attack
