#pragma once
#include "page/laid_out.h"

#include <QImage>
#include <atomic>
#include <functional>
#include <vector>

namespace butte::scan {

/// The words of a picture, read several times in ways that err differently.
struct PictureWords {
  QImage upright; ///< as it was read: turned upright, light evened out; boxes are of it
  std::vector<std::vector<reading::PageWord>> readings; ///< the best first; empty: nothing to read
};

struct Watch {
  std::function<void(int percent)> progress;
  const std::atomic<bool>* stop = nullptr; ///< gives up soon after it turns true
  bool isStopped() const { return stop && stop->load(); }
};

/// Whether pictures can be read here: the reader's language data is there.
bool canReadPictures();

/// Reads printed text in a picture: a scan, a photo of a sheet. Nothing is uncertain about where a word
/// stands; about each letter something is. Empty where it was stopped, or holds no text.
PictureWords readPicture(const QImage& picture, const Watch& watch = {});

} // namespace butte::scan
