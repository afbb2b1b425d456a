#include "scan/paper_reader.h"

#include <QBuffer>
#include <QImageReader>
#include <algorithm>
#include <memory>
#include <poppler-qt6.h>

namespace butte::scan {
namespace {

using reading::PageWord;

constexpr double shownDotsPerInch = 110, readDotsPerInch = 220;
/// A page with fewer words than that is a picture with a stamp on it.
constexpr std::size_t fewestWords = 8;
constexpr int mostWays = 3;

Paper failed(PaperTrouble why) {
  Paper out;
  out.trouble = why;
  return out;
}

/// Pages of several readings, one list of pages each.
using Readings = std::vector<std::vector<std::vector<PageWord>>>;

std::vector<PageWord> wordsOf(const Poppler::Page& page) {
  std::vector<PageWord> out;
  constexpr double dotsPerPoint = shownDotsPerInch / 72;
  for (const auto& box : page.textList()) {
    const auto area = box->boundingBox();
    const auto text = box->text().trimmed();
    if (text.isEmpty()) continue;
    out.push_back({text.toStdString(), area.left() * dotsPerPoint, area.top() * dotsPerPoint,
                   area.right() * dotsPerPoint, area.bottom() * dotsPerPoint});
  }
  return out;
}

void addPicture(Paper& out, Readings& readings, const QImage& picture, const Watch& watch) {
  auto words = readPicture(picture, watch);
  const auto page = out.pages.size();
  out.pages.push_back(words.upright.isNull() ? picture : words.upright);
  for (std::size_t i = 0; i < readings.size(); ++i) {
    readings[i].resize(page + 1);
    if (i < words.readings.size()) readings[i][page] = std::move(words.readings[i]);
  }
}

Paper finished(Paper out, const Readings& readings, const Watch& watch) {
  if (watch.isStopped()) return failed(PaperTrouble::Stopped);
  for (const auto& pages : readings) {
    auto laid = reading::laidOut(pages);
    if (!laid.text.empty()) out.readings.push_back(std::move(laid));
  }
  if (out.readings.empty()) return failed(PaperTrouble::NothingToRead);
  return out;
}

Paper pdf(const QByteArray& bytes, const Watch& watch) {
  const auto document = Poppler::Document::loadFromData(bytes);
  if (!document) return failed(PaperTrouble::NoPaper);
  if (document->isLocked()) return failed(PaperTrouble::Locked);
  document->setRenderHint(Poppler::Document::Antialiasing);
  document->setRenderHint(Poppler::Document::TextAntialiasing);
  Paper out;
  const int count = std::min(document->numPages(), mostPages);
  out.pagesLeftOut = static_cast<std::size_t>(std::max(0, document->numPages() - count));
  Readings readings(mostWays);
  bool pictures = false;
  for (int i = 0; i < count && !watch.isStopped(); ++i) {
    const auto page = document->page(i);
    if (!page) continue;
    auto words = wordsOf(*page);
    if (words.size() >= fewestWords || !canReadPictures()) {
      for (auto& reading : readings) {
        reading.resize(out.pages.size() + 1);
        reading.back() = words;
      }
      out.pages.push_back(page->renderToImage(shownDotsPerInch, shownDotsPerInch));
      if (watch.progress) watch.progress(100 * (i + 1) / count);
    } else {
      pictures = true;
      addPicture(out, readings, page->renderToImage(readDotsPerInch, readDotsPerInch),
                 {[&](int percent) {
                    if (watch.progress) watch.progress((100 * i + percent) / count);
                  },
                  watch.stop});
    }
  }
  if (!pictures) readings.resize(1); // what is there as text is read in one way
  out.isPicture = pictures;
  return finished(std::move(out), readings, watch);
}

} // namespace

bool isPaper(const QByteArray& beginning) {
  if (beginning.left(1024).contains("%PDF-")) return true;
  QByteArray bytes = beginning;
  QBuffer buffer(&bytes);
  buffer.open(QIODevice::ReadOnly);
  return QImageReader(&buffer).canRead();
}

Paper readPaper(const QImage& picture, const Watch& watch) {
  if (picture.isNull()) return failed(PaperTrouble::NoPaper);
  if (!canReadPictures()) return failed(PaperTrouble::NoReader);
  Paper out;
  out.isPicture = true;
  Readings readings(mostWays);
  addPicture(out, readings, picture, watch);
  return finished(std::move(out), readings, watch);
}

Paper readPaper(const QByteArray& bytes, const Watch& watch) {
  if (bytes.size() > largestPaper) return failed(PaperTrouble::TooLarge);
  if (bytes.left(1024).contains("%PDF-")) return pdf(bytes, watch);
  QByteArray copy = bytes;
  QBuffer buffer(&copy);
  buffer.open(QIODevice::ReadOnly);
  QImageReader reader(&buffer);
  reader.setAutoTransform(true); // a camera says which way up it was held
  const auto size = reader.size();
  constexpr qint64 mostDots = 200'000'000;
  if (size.isValid() && static_cast<qint64>(size.width()) * size.height() > mostDots)
    return failed(PaperTrouble::TooLarge);
  return readPaper(reader.read(), watch);
}

} // namespace butte::scan
