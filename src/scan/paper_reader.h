#pragma once
#include "page/laid_out.h"
#include "scan/picture_reader.h"

#include <QByteArray>
#include <QImage>
#include <optional>
#include <vector>

namespace butte::scan {

/// Why a paper could not be read.
enum class PaperTrouble {
  NoPaper,       ///< neither a PDF nor a picture that is known
  TooLarge,      ///< more than largestPaper bytes
  Locked,        ///< a PDF that wants a password
  NoReader,      ///< pictures can't be read here: the reader's language data is missing
  NothingToRead, ///< no text in it
  Stopped
};

/// A PDF's pages or a picture, as text in a typewriter's columns and as they look.
struct Paper {
  std::vector<QImage> pages;              ///< strips and words are in their dots
  std::vector<reading::LaidOut> readings; ///< of pictures several, which may differ; of a PDF's text one
  bool isPicture = false;                 ///< some page had to be read from its picture
  std::size_t pagesLeftOut = 0;           ///< more than mostPages
  std::optional<PaperTrouble> trouble;    ///< then the rest is empty
};

inline constexpr qint64 largestPaper = 64 << 20;
inline constexpr int mostPages = 12; ///< a report has a few; a yearly book is opened at its page

/// Whether bytes begin as a PDF or a picture does.
bool isPaper(const QByteArray& beginning);

/// Reads a PDF by its text, page by page, and by its picture where a page has none; or a picture. Meant for a
/// thread of its own; gives up soon after `watch.stop` turns true.
Paper readPaper(const QByteArray& bytes, const Watch& watch = {});
/// The same of a picture that is there already: the clipboard's.
Paper readPaper(const QImage& picture, const Watch& watch = {});

} // namespace butte::scan
