#pragma once
#include <cstddef>
#include <string>
#include <vector>

namespace butte::reading {

/// A word on a page and where it stands: in dots of the picture, or points of a PDF; the page's top left
/// corner is 0, 0.
struct PageWord {
  std::string text; ///< UTF-8
  double left = 0, top = 0, right = 0, bottom = 0;
};

/// A line of the text that was laid out, and where it stands on its page.
struct LineStrip {
  std::size_t page = 0;
  double left = 0, top = 0, right = 0, bottom = 0;
};

/// Where a word of the text that was laid out stands in it (bytes) and on its page.
struct SetWord {
  std::size_t from = 0, to = 0;
  std::size_t page = 0;
  double left = 0, top = 0, right = 0, bottom = 0;
};

/// A page, or several, as a typewriter would have set them.
struct LaidOut {
  std::string text;
  std::vector<LineStrip> strips; ///< parallel to the lines
  std::vector<SetWord> words;    ///< in order
};

/// Puts words into lines, and each as far from the left as it stands on the page, so that columns stay
/// columns. What a picture's reader commonly mistakes in units and names is mended here ("mg/1", "pS/cm");
/// figures are never touched.
LaidOut laidOut(const std::vector<std::vector<PageWord>>& pages);

} // namespace butte::reading
