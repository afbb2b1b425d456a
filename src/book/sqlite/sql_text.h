#pragma once

namespace butte::book {

/// A statement that stands in the program's text. Only a literal makes one, so nothing that was typed or
/// imported can ever become part of SQL; values are bound.
class Sql {
public:
  consteval Sql(const char* literal) : m_text(literal) {}
  const char* text() const { return m_text; }

private:
  const char* m_text;
};

} // namespace butte::book
