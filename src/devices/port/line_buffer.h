#pragma once
#include <string>
#include <string_view>
#include <vector>

namespace butte::devices {

/// Puts a device's bytes together to lines, in whatever pieces they come. A line ends with CR, LF, or ETX;
/// empty ones are left out. One longer than any device sends (longestSentLine) is dropped whole: its rest is
/// no line of its own.
class LineBuffer {
public:
  static constexpr std::size_t longestSentLine = 256;

  std::vector<std::string> take(std::string_view bytes);
  /// What came without an end so far is dropped, as after a lost connection.
  void clear();

private:
  std::string m_open;
  bool m_tooLong = false;
};

} // namespace butte::devices
