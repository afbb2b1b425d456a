#include "pen/pen_line.h"

#include "scale/line_tokens.h"

#include <algorithm>
#include <cctype>
#include <string>
#include <vector>

namespace butte::devices {

using core::Conductivity;

namespace {

constexpr std::size_t longestPenLine = 200;
constexpr double mostPh = 14;

std::string folded(std::string_view text) {
  std::string out;
  for (const char c : text)
    out += static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
  return out;
}

/// Blanks, commas and semicolons part words; a letter behind a digit begins a new one ("21.3C").
std::vector<std::string> wordsOf(std::string_view line) {
  const auto isDigit = [](char c) { return c >= '0' && c <= '9'; };
  std::vector<std::string> out;
  std::string open;
  const auto close = [&] {
    if (!open.empty()) out.push_back(open);
    open.clear();
  };
  for (const char c : line) {
    if (c == ' ' || c == '\t' || c == ',' || c == ';' || c == '=' || c == ':') {
      close();
      continue;
    }
    const bool number =
        !open.empty() && (isDigit(open.front()) || open.front() == '+' || open.front() == '-');
    if (number && !isDigit(c) && c != '.') close();
    open += c;
  }
  close();
  return out;
}

std::optional<Conductivity> conductivityOf(double value, const std::string& unit) {
  if (unit == "ms/cm" || unit == "ms") return Conductivity::fromMilliSiemensPerCm(value);
  if (unit == "us/cm" || unit == "us" || unit == "µs/cm" || unit == "μs/cm")
    return Conductivity::fromMicroSiemensPerCm(value);
  if (unit == "ppm500") return Conductivity::fromPpm500(value);
  if (unit == "ppm640") return Conductivity::fromPpm640(value);
  if (unit == "ppm700") return Conductivity::fromPpm700(value);
  return std::nullopt;
}

std::optional<core::Temperature> temperatureOf(double value, const std::string& unit) {
  if (unit == "c" || unit == "°c" || unit == "degc") return core::Temperature::fromCelsius(value);
  if (unit == "f" || unit == "°f" || unit == "degf") return core::Temperature::fromFahrenheit(value);
  return std::nullopt;
}

class PenSense {
public:
  explicit PenSense(std::vector<std::string> words) : m_words(std::move(words)) {}

  PenReading read() {
    for (std::size_t at = 0; at < m_words.size();) {
      const auto taken = take(at);
      if (taken == 0) return {};
      at += taken;
    }
    return m_out.isEmpty() ? PenReading{} : m_out;
  }

private:
  std::size_t take(std::size_t at) {
    const auto word = folded(m_words[at]);
    if (word == "st" || word == "us" || word == "?") {
      if (m_out.stable) return 0;
      m_out.stable = word == "st";
      return 1;
    }
    if (word == "ec" || word == "cond" || word == "temp" || word == "t")
      return at + 1 < m_words.size() ? 1 : 0;
    if (word == "ph") return ph(at);
    return amount(at, word);
  }
  std::size_t ph(std::size_t at) {
    const auto value = at + 1 < m_words.size() ? number(m_words[at + 1]) : std::nullopt;
    if (!value || m_out.ph || *value < 0 || *value > mostPh) return 0;
    m_out.ph = value;
    return 2;
  }
  std::size_t amount(std::size_t at, const std::string& word) {
    const auto value = number(word);
    if (!value || at + 1 >= m_words.size()) return 0;
    const auto unit = folded(m_words[at + 1]);
    if (const auto ec = conductivityOf(*value, unit)) {
      if (m_out.conductivity || *value < 0) return 0;
      m_out.conductivity = ec;
      return 2;
    }
    const auto temperature = temperatureOf(*value, unit);
    if (!temperature || m_out.temperature) return 0;
    m_out.temperature = temperature;
    return 2;
  }
  static std::optional<double> number(const std::string& word) {
    const bool minus = word.front() == '-', plus = word.front() == '+';
    const auto value = clearNumber(std::string_view(word).substr(minus || plus ? 1 : 0));
    if (!value) return std::nullopt;
    return minus ? -*value : *value;
  }

  std::vector<std::string> m_words;
  PenReading m_out;
};

} // namespace

PenReading readPenLine(std::string_view line) {
  const auto trimmed = trimmedLine(line);
  if (trimmed.empty() || trimmed.size() > longestPenLine) return {};
  return PenSense(wordsOf(trimmed)).read();
}

} // namespace butte::devices
