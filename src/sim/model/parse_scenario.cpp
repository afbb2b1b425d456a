#include "base/problem.h"
#include "model/sim_bench.h"
#include "scale/line_tokens.h"
#include "units/convert.h"

#include <sstream>

namespace butte::sim {

using core::problemAt;
using core::ProblemCode;

namespace {

constexpr double mostSeconds = 1e6, mostAmount = 1e9;
constexpr std::size_t mostActs = 10000;

/// The words of one line, read from the left; what does not fit makes it wrong for good.
class Words {
public:
  explicit Words(const std::string& line) {
    std::istringstream in(line);
    for (std::string word; in >> word;)
      m_words.push_back(word);
  }
  bool isEmpty() const { return m_words.empty() || m_words.front().front() == '#'; }
  bool isGood() const { return m_good && m_at == m_words.size(); }
  std::string word() {
    if (m_at < m_words.size()) return m_words[m_at++];
    m_good = false;
    return {};
  }
  bool has(const char* word) {
    if (m_at >= m_words.size() || m_words[m_at] != word) return false;
    ++m_at;
    return true;
  }
  void needs(const char* word) { m_good = has(word) && m_good; }
  double number(double least, double most) {
    auto text = word();
    const bool minus = !text.empty() && text.front() == '-';
    const auto value = devices::clearNumber(std::string_view(text).substr(minus ? 1 : 0));
    const double out = value ? (minus ? -*value : *value) : 0;
    m_good = m_good && value && out >= least && out <= most;
    return out;
  }
  core::Mass mass(double least) {
    const double value = number(least, mostAmount);
    const auto grams = core::convert(value, word(), "g");
    m_good = m_good && grams;
    return core::Mass::fromGrams(grams ? *grams : 0);
  }
  double seconds() {
    const double value = number(0, mostSeconds);
    needs("s");
    return value;
  }

private:
  std::vector<std::string> m_words;
  std::size_t m_at = 0;
  bool m_good = true;
};

act::Dip dip(Words& words) {
  act::Dip out;
  const double value = words.number(0, mostAmount);
  const auto ec = core::convert(value, words.word(), "mS/cm");
  out.at25 = core::Conductivity::fromMilliSiemensPerCm(ec ? *ec : 0);
  words.needs("pH");
  constexpr double mostPh = 14, most = 100;
  out.ph = words.number(0, mostPh);
  out.temperature = core::Temperature::fromCelsius(words.number(0, most));
  words.needs("C");
  return out;
}

std::optional<Act> loadAct(const std::string& verb, Words& words) {
  constexpr double percent = 100;
  if (verb == "on") return act::LayOn{words.mass(0)};
  if (verb == "pour") {
    const auto mass = words.mass(0);
    return act::Pour{mass, words.has("in") ? words.seconds() : 0};
  }
  if (verb == "out") return act::TakeOut{words.mass(0)};
  if (verb == "lift") return act::Lift{};
  if (verb == "back") return act::PutBack{};
  if (verb == "tip") {
    if (!words.has("leaving")) return act::Tip{};
    const double share = words.number(0, percent) / percent;
    words.needs("%");
    return act::Tip{share};
  }
  return std::nullopt;
}

std::optional<Act> scaleAct(const std::string& verb, Words& words) {
  constexpr double leastSpan = 0.01, mostSpan = 100;
  if (verb == "tare") return act::Tare{};
  if (verb == "pull") return act::Pull{words.mass(-mostAmount)};
  if (verb == "draught") return act::Draught{words.seconds()};
  if (verb == "drift") return act::Drift{words.mass(-mostAmount)};
  if (verb == "span") return act::Span{words.number(leastSpan, mostSpan)};
  if (verb == "unplug") return act::Unplug{words.seconds()};
  if (verb != "unit") return std::nullopt;
  for (const char* unit : {"g", "kg", "oz", "lb", "lb:oz"})
    if (words.has(unit)) return act::ShowIn{unit};
  words.needs("g, kg, oz, lb, lb:oz");
  return act::ShowIn{"g"};
}

std::optional<Act> penAct(const std::string& verb, Words& words) {
  constexpr double mostOffset = 14, leastSlope = 0.01, mostSlope = 100;
  if (verb == "dip") return dip(words);
  if (verb == "air") return act::PenOut{};
  if (verb == "slope") {
    const double slope = words.number(leastSlope, mostSlope);
    words.needs("pH");
    return act::Calibrate{slope, words.number(-mostOffset, mostOffset)};
  }
  if (verb == "wander") return act::PenDrift{words.number(-mostOffset, mostOffset)};
  return std::nullopt;
}

} // namespace

core::Result<std::vector<TimedAct>> parseScenario(std::string_view text) {
  std::vector<TimedAct> out;
  std::istringstream lines{std::string(text)};
  int number = 0;
  for (std::string line; std::getline(lines, line);) {
    ++number;
    Words words(line);
    if (words.isEmpty()) continue;
    const double at = words.number(0, mostSeconds);
    const auto verb = words.word();
    auto act = loadAct(verb, words);
    if (!act) act = scaleAct(verb, words);
    if (!act) act = penAct(verb, words);
    if (!act || !words.isGood() || out.size() >= mostActs)
      return problemAt(ProblemCode::NotOneOf, "line " + std::to_string(number),
                       {line, "seconds and an act, as in \"2.5 pour 250 g in 4 s\""});
    out.push_back({at, *act});
  }
  return out;
}

} // namespace butte::sim
