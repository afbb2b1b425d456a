#include "page/page_places.h"

#include <algorithm>

namespace butte::reading {
namespace {

/// The share of a word's room that some of its bytes have.
PageRoom partOf(const SetWord& word, std::size_t from, std::size_t to) {
  const auto across = [&](std::size_t byte) {
    const auto within = std::clamp(byte, word.from, word.to) - word.from;
    const auto all = std::max<std::size_t>(1, word.to - word.from);
    return word.left + (word.right - word.left) * static_cast<double>(within) / static_cast<double>(all);
  };
  return {word.page, across(from), word.top, across(to), word.bottom};
}

double shared(double from, double to, double otherFrom, double otherTo) {
  return std::min(to, otherTo) - std::max(from, otherFrom);
}

} // namespace

std::optional<PageRoom> PagePlaces::roomOf(const Place& place) const {
  if (place.room) return place.room;
  std::optional<PageRoom> out;
  for (const auto& word : m_text->words) {
    if (word.to <= place.from || word.from >= place.to) continue;
    const auto part = partOf(word, place.from, place.to);
    if (!out) {
      out = part;
      continue;
    }
    if (part.page != out->page) continue;
    out->left = std::min(out->left, part.left), out->right = std::max(out->right, part.right);
    out->top = std::min(out->top, part.top), out->bottom = std::max(out->bottom, part.bottom);
  }
  return out;
}

Place PagePlaces::placeIn(const PageRoom& room) const {
  Place out{1, 0, 0, room};
  bool any = false;
  for (const auto& word : m_text->words) {
    const PageRoom whole{word.page, word.left, word.top, word.right, word.bottom};
    const bool there = isSameRoom(whole, room);
    const bool above = whole.page < room.page || (whole.page == room.page && whole.top < room.bottom);
    if (there) {
      out.from = any ? std::min(out.from, word.from) : word.from;
      out.to = word.to;
      any = true;
    } else if (above && !any) {
      out.from = out.to = std::max(out.to, word.to);
    }
  }
  const auto end =
      m_text->text.begin() + static_cast<std::ptrdiff_t>(std::min(out.from, m_text->text.size()));
  out.line += static_cast<int>(std::count(m_text->text.begin(), end, '\n'));
  return out;
}

bool isSameHeight(const PageRoom& a, const PageRoom& b) {
  const double lower = std::min(a.bottom - a.top, b.bottom - b.top);
  return a.page == b.page && shared(a.top, a.bottom, b.top, b.bottom) >= 0.5 * lower;
}

bool isSameRoom(const PageRoom& a, const PageRoom& b) {
  const double narrower = std::min(a.right - a.left, b.right - b.left);
  return isSameHeight(a, b) && shared(a.left, a.right, b.left, b.right) >= 0.4 * narrower;
}

} // namespace butte::reading
