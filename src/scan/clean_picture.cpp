#include "scan/clean_picture.h"

#include <QPainter>
#include <algorithm>
#include <cmath>
#include <cstring>
#include <leptonica/allheaders.h>
#include <vector>

namespace butte::scan {
namespace {

struct PixDeleter {
  void operator()(Pix* pix) const { pixDestroy(&pix); }
};
using PixPointer = std::unique_ptr<Pix, PixDeleter>;

constexpr int mostDots = 60'000'000;
constexpr int leastSide = 16;

PixPointer greyPix(const QImage& picture) {
  // On white: what is see-through is paper.
  QImage flat(picture.size(), QImage::Format_RGB32);
  flat.fill(Qt::white);
  QPainter(&flat).drawImage(0, 0, picture);
  const auto grey = flat.convertToFormat(QImage::Format_Grayscale8);
  PixPointer out(pixCreate(grey.width(), grey.height(), 8));
  for (int y = 0; out && y < grey.height(); ++y) {
    const auto* from = grey.constScanLine(y);
    auto* line = pixGetData(out.get()) + static_cast<std::ptrdiff_t>(y) * pixGetWpl(out.get());
    for (int x = 0; x < grey.width(); ++x)
      SET_DATA_BYTE(line, x, from[x]);
  }
  return out;
}

PixPointer evened(PixPointer pix) {
  PixPointer even(pixBackgroundNormSimple(pix.get(), nullptr, nullptr));
  if (!even) return pix;
  // Paper comes out at 200 of 255: white again, so that what is brought in at the edges is paper too.
  constexpr int ink = 20, paper = 190;
  PixPointer white(pixGammaTRC(nullptr, even.get(), 1.0f, ink, paper));
  return white ? std::move(white) : std::move(even);
}

PixPointer blackWhite(Pix* grey) {
  Pix* hard = nullptr;
  const int half = std::clamp(std::min(pixGetWidth(grey), pixGetHeight(grey)) / 8, 8, 40);
  if (pixSauvolaBinarize(grey, half, 0.3f, 1, nullptr, nullptr, nullptr, &hard) != 0) return nullptr;
  return PixPointer(hard);
}

/// Leans of more than a photo's are not looked for.
PixPointer upright(PixPointer grey) {
  const auto hard = blackWhite(grey.get());
  if (!hard) return grey;
  float angle = 0, sureness = 0;
  constexpr float most = 7, leastSure = 2;
  if (pixFindSkewSweepAndSearch(hard.get(), &angle, &sureness, 2, 1, most, 1.0f, 0.01f) != 0) return grey;
  if (std::abs(angle) < 0.05f || sureness < leastSure) return grey;
  const auto radians = static_cast<float>(angle * M_PI / 180);
  PixPointer turned(pixRotate(grey.get(), radians, L_ROTATE_AREA_MAP, L_BRING_IN_WHITE, 0, 0));
  return turned ? std::move(turned) : std::move(grey);
}

/// The middle height of marks that can be small letters or figures; 0 where there are none.
double letterHeightOf(Pix* grey) {
  const auto hard = blackWhite(grey);
  if (!hard) return 0;
  Boxa* boxes = pixConnComp(hard.get(), nullptr, 8);
  std::vector<int> heights;
  for (int i = 0; boxes && i < boxaGetCount(boxes); ++i) {
    int w = 0, h = 0;
    boxaGetBoxGeometry(boxes, i, nullptr, nullptr, &w, &h);
    if (h >= 5 && w >= 2 && w < 4 * h && h < 6 * w && h < 200) heights.push_back(h);
  }
  boxaDestroy(&boxes);
  if (heights.size() < 5) return 0;
  std::nth_element(heights.begin(), heights.begin() + static_cast<std::ptrdiff_t>(heights.size() / 2),
                   heights.end());
  return heights[heights.size() / 2];
}

struct Dot {
  int x = 0, y = 0, w = 0, h = 0;
};

/// Marks that are as small as points are.
std::vector<Dot> dotsOf(Pix* hard, double letterHeight) {
  std::vector<Dot> out;
  Boxa* boxes = pixConnComp(hard, nullptr, 8);
  for (int i = 0; boxes && i < boxaGetCount(boxes); ++i) {
    Dot dot;
    boxaGetBoxGeometry(boxes, i, &dot.x, &dot.y, &dot.w, &dot.h);
    if (dot.w <= 0.4 * letterHeight && dot.h <= 0.4 * letterHeight) out.push_back(dot);
  }
  boxaDestroy(&boxes);
  std::sort(out.begin(), out.end(), [](const Dot& a, const Dot& b) { return a.x < b.x; });
  return out;
}

/// Rows of points that lead the eye across a gap are read as letters and figures: four and more in a row, as
/// no number has them, are wiped out.
void wipeLeaders(Pix* grey, double letterHeight) {
  const auto hard = blackWhite(grey);
  if (!hard) return;
  const auto dots = dotsOf(hard.get(), letterHeight);
  constexpr std::size_t fewest = 4, most = 20000;
  if (dots.size() > most) return; // grain
  std::vector<bool> used(dots.size());
  for (std::size_t i = 0; i < dots.size(); ++i) {
    if (used[i]) continue;
    std::vector<std::size_t> run{i};
    for (std::size_t k = i + 1; k < dots.size(); ++k) {
      const auto& last = dots[run.back()];
      if (dots[k].x - last.x > 1.2 * letterHeight) break;
      const bool level = std::abs(dots[k].y + dots[k].h / 2 - last.y - last.h / 2) <= 0.15 * letterHeight + 1;
      if (level && !used[k] && dots[k].x > last.x + last.w / 2) run.push_back(k);
    }
    if (run.size() < fewest) continue;
    for (const auto at : run) {
      used[at] = true;
      const auto& dot = dots[at];
      Box* room = boxCreate(std::max(0, dot.x - 2), std::max(0, dot.y - 2), dot.w + 4, dot.h + 4);
      pixSetInRectArbitrary(grey, room, 255);
      boxDestroy(&room);
    }
  }
}

} // namespace

CleanPicture::CleanPicture(Pix* pix, double letterHeight, int margin)
    : m_pix(pix, PixDeleter()), m_letterHeight(letterHeight), m_margin(margin) {}

QImage CleanPicture::image() const {
  QImage out(pixGetWidth(pix()), pixGetHeight(pix()), QImage::Format_Grayscale8);
  for (int y = 0; y < out.height(); ++y) {
    const auto* line = pixGetData(pix()) + static_cast<std::ptrdiff_t>(y) * pixGetWpl(pix());
    for (int x = 0; x < out.width(); ++x)
      out.scanLine(y)[x] = static_cast<uchar>(GET_DATA_BYTE(line, x));
  }
  return out;
}

CleanPicture CleanPicture::scaled(double by, bool hard) const {
  const double dots = static_cast<double>(pixGetWidth(pix())) * pixGetHeight(pix());
  const auto factor = static_cast<float>(std::min(by, std::sqrt(mostDots / dots)));
  PixPointer out(pixScale(pix(), factor, factor));
  if (hard) {
    if (auto black = blackWhite(out.get())) out = std::move(black);
  }
  // Letters at the very edge are not found.
  constexpr int margin = 30;
  const bool grey = pixGetDepth(out.get()) == 8;
  if (PixPointer framed{pixAddBorder(out.get(), margin, grey ? 255 : 0)})
    return {framed.release(), m_letterHeight * factor, margin};
  return {out.release(), m_letterHeight * factor};
}

std::optional<CleanPicture> cleaned(const QImage& picture) {
  if (picture.width() < leastSide || picture.height() < leastSide) return std::nullopt;
  if (static_cast<qint64>(picture.width()) * picture.height() > mostDots) {
    const double by = std::sqrt(mostDots / (static_cast<double>(picture.width()) * picture.height()));
    return cleaned(picture.scaled(picture.size() * by, Qt::IgnoreAspectRatio, Qt::SmoothTransformation));
  }
  auto grey = greyPix(picture);
  if (!grey) return std::nullopt;
  grey = upright(evened(std::move(grey)));
  const double height = letterHeightOf(grey.get());
  if (height <= 0) return std::nullopt;
  wipeLeaders(grey.get(), height);
  return CleanPicture(grey.release(), height);
}

} // namespace butte::scan
