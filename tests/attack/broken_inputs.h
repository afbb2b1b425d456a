#pragma once
#include <random>
#include <string>

namespace butte::attack {

/// Makes broken inputs of valid ones: bytes and figures changed, pieces doubled, moved and cut, values beyond
/// all measure, nesting without end, names with marks and control characters. The same seed gives the same
/// inputs.
class BrokenInputs {
public:
  explicit BrokenInputs(unsigned seed) : m_random(seed) {}
  std::string from(const std::string& valid);

private:
  std::size_t below(std::size_t count) { return count == 0 ? 0 : m_random() % count; }
  void change(std::string& text);
  void figure(std::string& text);
  void piece(std::string& text);
  void nest(std::string& text);
  std::mt19937 m_random;
};

} // namespace butte::attack
