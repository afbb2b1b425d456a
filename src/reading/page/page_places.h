#pragma once
#include "page/laid_out.h"
#include "report/report_text.h"

#include <optional>

namespace butte::reading {

/// Where what stands in a laid out text stands on its page: so that several readings of one picture, whose
/// lines and words differ, are held together by the ink and not by the letters.
class PagePlaces {
public:
  explicit PagePlaces(const LaidOut& text) : m_text(&text) {}

  /// The room of these bytes; of a part of a word, its share of the word's room. None where no word stands.
  std::optional<PageRoom> roomOf(const Place& place) const;

  /// The place in this text of what another reading has in a room: the words there; of a room that has none
  /// in this text, the end of the last line that begins above it. The room goes with it.
  Place placeIn(const PageRoom& room) const;

private:
  const LaidOut* m_text;
};

/// Two readings' figures are one: they share a good part of the narrower one's room.
bool isSameRoom(const PageRoom& a, const PageRoom& b);

/// They stand at one height of one page.
bool isSameHeight(const PageRoom& a, const PageRoom& b);

} // namespace butte::reading
