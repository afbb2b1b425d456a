#include "scan/picture_reader.h"

#include "scan/clean_picture.h"

#include <algorithm>
#include <array>
#include <atomic>
#include <leptonica/allheaders.h>
#include <memory>
#include <mutex>
#include <numeric>
#include <omp.h>
#include <tesseract/baseapi.h>
#include <tesseract/ocrclass.h>
#include <thread>

namespace butte::scan {
namespace {

using reading::PageWord;

/// One way of reading: which language's model, how high small letters are made, whether in black and white.
struct Way {
  const char* language;
  double letterHeight;
  bool hard;
};
/// English reads names and figures best; German knows the micro sign. What all get wrong alike is rare.
constexpr std::array<Way, 3> ways{{{"eng", 26, false}, {"deu", 36, false}, {"eng", 32, false}}};

class Reader {
public:
  explicit Reader(const char* language) {
    m_ready = m_reader.Init(nullptr, language, tesseract::OEM_LSTM_ONLY) == 0;
    m_reader.SetPageSegMode(tesseract::PSM_SINGLE_BLOCK);
    m_reader.SetVariable("preserve_interword_spaces", "1");
    m_reader.SetVariable("debug_file", "/dev/null");
  }
  bool isReady() const { return m_ready; }

  /// Boxes in dots of the picture at scale 1.
  std::vector<PageWord> read(const CleanPicture& picture, double scale, const Watch& watch,
                             const std::function<void(int)>& progress) {
    m_reader.SetImage(picture.pix());
    m_reader.SetSourceResolution(300);
    tesseract::ETEXT_DESC monitor;
    struct Told {
      const Watch& watch;
      const std::function<void(int)>& progress;
    } told{watch, progress};
    monitor.cancel = [](void* data, int) { return static_cast<Told*>(data)->watch.isStopped(); };
    monitor.cancel_this = &told;
    monitor.progress_callback2 = [](tesseract::ETEXT_DESC* self, int, int, int, int) {
      static_cast<Told*>(self->cancel_this)->progress(self->progress);
      return false;
    };
    if (m_reader.Recognize(&monitor) != 0 || watch.isStopped()) return {};
    return words(scale, picture.margin());
  }

private:
  std::vector<PageWord> words(double scale, int margin) {
    std::vector<PageWord> out;
    const std::unique_ptr<tesseract::ResultIterator> at(m_reader.GetIterator());
    if (!at) return out;
    do {
      const std::unique_ptr<char[]> text(at->GetUTF8Text(tesseract::RIL_WORD));
      int left = 0, top = 0, right = 0, bottom = 0;
      if (!text || !at->BoundingBox(tesseract::RIL_WORD, &left, &top, &right, &bottom)) continue;
      out.push_back({text.get(), (left - margin) / scale, (top - margin) / scale, (right - margin) / scale,
                     (bottom - margin) / scale});
    } while (at->Next(tesseract::RIL_WORD));
    return out;
  }

  tesseract::TessBaseAPI m_reader;
  bool m_ready = false;
};

} // namespace

bool canReadPictures() {
  return Reader("eng").isReady();
}

PictureWords readPicture(const QImage& picture, const Watch& watch) {
  PictureWords out;
  const auto clean = cleaned(picture);
  if (!clean || watch.isStopped()) return out;
  out.upright = clean->image();
  out.readings.resize(ways.size());
  std::array<std::atomic<int>, ways.size()> done{};
  std::mutex telling;
  const auto readOne = [&](std::size_t i) {
    omp_set_max_active_levels(0);
    Reader reader(ways[i].language);
    if (!reader.isReady()) return;
    const double scale = ways[i].letterHeight / clean->letterHeight();
    out.readings[i] = reader.read(clean->scaled(scale, ways[i].hard), scale, watch, [&, i](int percent) {
      done[i] = percent;
      if (!watch.progress) return;
      const std::lock_guard lock(telling);
      watch.progress(std::accumulate(done.begin(), done.end(), 0) / static_cast<int>(ways.size()));
    });
  };
  // The readings side by side, one thread each; a reader's own threads only get into one another's way and
  // are switched off.
  std::vector<std::thread> threads;
  for (std::size_t i = 1; i < ways.size(); ++i)
    threads.emplace_back(readOne, i);
  readOne(0);
  for (auto& thread : threads)
    thread.join();
  if (watch.isStopped()) return {};
  std::erase_if(out.readings, [](const auto& words) { return words.empty(); });
  return out;
}

} // namespace butte::scan
