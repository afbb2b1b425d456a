#pragma once
#include <QImage>
#include <memory>
#include <optional>

struct Pix;

namespace butte::scan {

/// A picture of a page made ready to be read: grey, turned upright, its light evened out.
class CleanPicture {
public:
  CleanPicture(Pix* pix, double letterHeight, int margin = 0);
  Pix* pix() const { return m_pix.get(); }
  QImage image() const;
  /// Dots that letters without strokes up or down are high, in the middle.
  double letterHeight() const { return m_letterHeight; }
  /// White dots around what the picture shows.
  int margin() const { return m_margin; }
  /// Larger or smaller, with a margin around; `hard`: black and white only.
  CleanPicture scaled(double by, bool hard) const;

private:
  std::shared_ptr<Pix> m_pix;
  double m_letterHeight = 20;
  int m_margin = 0;
};

/// Nothing where there is nothing to read: an empty picture, one without letters.
std::optional<CleanPicture> cleaned(const QImage& picture);

} // namespace butte::scan
