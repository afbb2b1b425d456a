#include "port/line_buffer.h"

namespace butte::devices {

std::vector<std::string> LineBuffer::take(std::string_view bytes) {
  constexpr char etx = '\x03';
  std::vector<std::string> out;
  for (const char c : bytes) {
    if (c != '\r' && c != '\n' && c != etx) {
      if (m_open.size() < longestSentLine)
        m_open += c;
      else
        m_tooLong = true;
      continue;
    }
    if (!m_tooLong && !m_open.empty()) out.push_back(std::move(m_open));
    clear();
  }
  return out;
}

void LineBuffer::clear() {
  m_open.clear();
  m_tooLong = false;
}

} // namespace butte::devices
