/// A tank whose logger wrote a reading a minute, all of them kept: what a year and a million cost on the
/// disk, in memory, to gather behind the window, and to draw.
#include "book/book_json.h"
#include "book/open_store.h"
#include "book/reading.h"
#include "document/vessel_readings.h"
#include "services/units_shown.h"
#include "stations/tank/tank_picture.h"

#include <QApplication>
#include <QFileInfo>
#include <QSettings>
#include <QTemporaryDir>
#include <benchmark/benchmark.h>
#include <cmath>
#include <cstdio>

namespace butte::app {
namespace {

constexpr std::int64_t begin = 1700000000, minute = 60, yearSeconds = 365 * 86400;
constexpr const char* vessel = "vessel-1";

/// Four quantities, a reading a minute, `perQuantity` of each.
std::string bookOf(QTemporaryDir& folder, std::int64_t perQuantity) {
  const auto path = folder.filePath(QString("year%1.butte").arg(perQuantity)).toStdString();
  if (QFileInfo::exists(QString::fromStdString(path))) return path;
  auto store = book::createStore(path).value();
  std::ignore = store->begin();
  std::ignore = store->write({{book::Kind::Vessel, vessel}, book::Json{{"name", "pond"}}, {}}, {begin});
  std::vector<book::Reading> some;
  for (std::int64_t i = 0; i < perQuantity; ++i) {
    const double day = static_cast<double>(i * minute) / 86400;
    const std::pair<const char*, double> figures[] = {{"ec", 1.6 + 0.2 * std::sin(day)},
                                                      {"ph", 5.9 + 0.3 * std::sin(day / 3)},
                                                      {"level", 1000 - 60 * std::fmod(day, 5)},
                                                      {"temperature", 20 + 2 * std::cos(6.283 * day)}};
    for (const auto& [quantity, value] : figures)
      some.push_back({0, vessel, quantity, {begin + i * minute}, value, {}, {}, {}});
    if (some.size() >= 40000) {
      std::ignore = store->addReadings(some);
      some.clear();
    }
  }
  std::ignore = store->addReadings(some);
  std::ignore = store->commit();
  store.reset();
  std::printf("%lld readings: %.1f MB on the disk\n", static_cast<long long>(4 * perQuantity),
              static_cast<double>(QFileInfo(QString::fromStdString(path)).size()) / 1e6);
  return path;
}

QTemporaryDir& folder() {
  static QTemporaryDir one;
  return one;
}

/// What the story is told from, by a second look at the book.
void gather(benchmark::State& state) {
  const auto path = bookOf(folder(), state.range(0));
  for (auto _ : state)
    benchmark::DoNotOptimize(vesselReadingsBeside(path, vessel));
}
BENCHMARK(gather)->Arg(250000)->Arg(525600)->Unit(benchmark::kMillisecond);

/// A stretch in view as closely as it can be shown: days as the second argument.
void lookCloser(benchmark::State& state) {
  const auto path = bookOf(folder(), state.range(0));
  const auto span = state.range(1) * 86400;
  for (auto _ : state)
    benchmark::DoNotOptimize(
        closeReadingsBeside(path, vessel, begin, begin + span, std::max<std::int64_t>(60, span / 200)));
}
BENCHMARK(lookCloser)
    ->Args({525600, 1})
    ->Args({525600, 7})
    ->Args({525600, 30})
    ->Args({525600, 365})
    ->Unit(benchmark::kMillisecond);

/// A frame of the picture with all of it in view, and a week of it.
void frame(benchmark::State& state) {
  const auto path = bookOf(folder(), 525600);
  QSettings settings(folder().filePath("settings.ini"), QSettings::IniFormat);
  UnitsShown units(settings);
  struct Shown : TankPicture {
    using TankPicture::setStretch;
    using TankPicture::TankPicture;
  } picture(units);
  picture.resize(720, 280);
  auto readings = vesselReadingsBeside(path, vessel).value();
  TankGiven given;
  given.readings = std::move(readings.readings);
  given.thinned = readings.thinned;
  given.now = {begin + yearSeconds};
  TankStory story;
  story.none = NoStory::None;
  story.start = begin;
  for (int day = 0; day <= 365; ++day) {
    core::TankEstimate at;
    at.day = day;
    at.litres = {900, 850, 950};
    at.at25 = core::Band{1.6, 1.5, 1.7};
    at.ph = core::Band{5.9, 5.6, 6.2};
    story.estimates.push_back(at);
  }
  picture.show(given, story);
  picture.setStretch(begin, begin + state.range(0) * 86400);
  picture.showCloser(
      closeReadingsBeside(path, vessel, picture.from(), picture.to(), picture.secondsPerDot()));
  QImage image(720, 280, QImage::Format_ARGB32_Premultiplied);
  for (auto _ : state)
    picture.render(&image);
}
BENCHMARK(frame)->Arg(7)->Arg(365)->Unit(benchmark::kMillisecond);

} // namespace
} // namespace butte::app

int main(int argc, char** argv) {
  qputenv("QT_QPA_PLATFORM", "offscreen");
  QApplication app(argc, argv);
  benchmark::Initialize(&argc, argv);
  benchmark::RunSpecifiedBenchmarks();
  std::FILE* status = std::fopen("/proc/self/status", "r");
  char line[256];
  while (status && std::fgets(line, sizeof line, status))
    if (std::string(line).rfind("VmHWM", 0) == 0) std::fputs(line, stdout);
  if (status) std::fclose(status);
}
