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
  double sureness = 1; ///< 0 to 1, of its worst letter; 1 where the text itself was there
};

/// A line of the text that was laid out, and where it stands on its page.
struct LineStrip {
  std::size_t page = 0;
  double left = 0, top = 0, right = 0, bottom = 0;
};

/// Bytes of the text that may be read wrongly.
struct Faint {
  std::size_t from = 0, to = 0;
  double sureness = 0;
};

/// A page, or several, as a typewriter would have set them.
struct LaidOut {
  std::string text;
  std::vector<LineStrip> strips; ///< parallel to the lines
  std::vector<Faint> words;      ///< every word of a picture, in order
};

/// Puts words into lines, and each as far from the left as it stands on the page, so that columns stay
/// columns. What a picture's reader commonly mistakes in units and names is mended here ("mg/1", "pS/cm");
/// figures are never touched.
LaidOut laidOut(const std::vector<std::vector<PageWord>>& pages);

} // namespace butte::reading
