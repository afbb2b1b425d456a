/// From a scale's line on its cable to the pixel: the bench weighs, a line goes into a pseudo-terminal, and
/// the time counts until the figure that it changes is painted. With BUTTE_STREAM_LINES=n so many lines more
/// are streamed in the end, twenty to a turn, and the memory of the program is told at each tenth of them: a
/// day at 20 lines a second is 1,728,000.
#include "document/formula_file.h"
#include "paint/theme.h"
#include "serve/sim_server.h"
#include "services/device_desk.h"
#include "stations/bench/run_page.h"
#include "support/told.h"
#include "window/main_window.h"

#include <QApplication>
#include <QFile>
#include <QLabel>
#include <QPushButton>
#include <QSettings>
#include <QTemporaryDir>
#include <algorithm>
#include <benchmark/benchmark.h>
#include <chrono>
#include <cstdio>

using namespace butte::app;

namespace {

using Clock = std::chrono::steady_clock;

/// A window that weighs the first salt, its scale on a cable.
struct Bench {
  QTemporaryDir folder;
  QSettings settings{folder.filePath("settings.ini"), QSettings::IniFormat};
  butte::sim::Cable cable{folder.filePath("scale")};
  MainWindow window{settings, folder.filePath("data")};
  QLabel* figure = nullptr;
  int grams = 0;

  bool open() {
    const auto demo = readFormulaFile(":/demo/ormsey.json");
    if (!demo || window.desk().createBook(folder.filePath("farm.butte"), "Farm") ||
        window.desk().addFormula(*demo, told("demo")) || !cable.plugIn())
      return false;
    window.devices().keep({{DeviceSetting::Kind::Scale, "bench", "serial:" + cable.path(), {}, {}, {}, {}}});
    window.resize(1280, 800);
    window.show();
    window.showStation(Station::Bench);
    QApplication::processEvents();
    for (const char* name : {"weighHere", "runNext", "runNext"}) {
      window.findChild<QPushButton*>(name)->click();
      QApplication::processEvents();
    }
    figure = window.findChild<QLabel*>("runFigure");
    return figure && figure->isVisible() && sees(write());
  }
  /// Another weight each time, never one that is taken.
  QString write() {
    grams = grams % 900 + 1;
    cable.write(QString("US,NT,+ %1.0 g\r\n").arg(grams).toLatin1());
    return QString::number(grams);
  }
  bool sees(const QString&) {
    const auto before = figure->text();
    const auto end = Clock::now() + std::chrono::seconds(5);
    while (figure->text() == before && Clock::now() < end)
      QApplication::processEvents(QEventLoop::WaitForMoreEvents, 5);
    const bool changed = figure->text() != before;
    QApplication::processEvents(); // painted
    return changed;
  }
};

Bench* bench = nullptr; ///< one for all measurements, as long as there is an application

void lineToPixel(benchmark::State& state) {
  std::vector<double> milliseconds;
  for (auto _ : state) {
    const auto start = Clock::now();
    if (!bench->sees(bench->write())) return state.SkipWithError("the figure did not follow");
    milliseconds.push_back(std::chrono::duration<double, std::milli>(Clock::now() - start).count());
  }
  std::sort(milliseconds.begin(), milliseconds.end());
  state.counters["p50_ms"] = milliseconds[milliseconds.size() / 2];
  state.counters["p99_ms"] = milliseconds[milliseconds.size() * 99 / 100];
  state.counters["most_ms"] = milliseconds.back();
}
BENCHMARK(lineToPixel)->Iterations(2000)->Unit(benchmark::kMillisecond);

/// Resident, in KiB.
long memory() {
  QFile status("/proc/self/status");
  if (!status.open(QIODevice::ReadOnly)) return 0;
  for (const auto& line : status.readAll().split('\n'))
    if (line.startsWith("VmRSS:")) return line.simplified().split(' ').value(1).toLong();
  return 0;
}

void stream(long lines) {
  constexpr int atOnce = 20;
  const long tenth = std::max(1L, lines / 10);
  for (long i = 0; i < lines; i += atOnce) {
    for (int k = 0; k < atOnce; ++k)
      bench->write();
    QApplication::processEvents(QEventLoop::AllEvents, 5);
    if (i % tenth < atOnce) std::printf("%ld lines: %ld KiB\n", i, memory());
  }
  std::printf("%ld lines: %ld KiB\n", lines, memory());
}

} // namespace

int main(int argc, char** argv) {
  qputenv("QT_QPA_PLATFORM", "offscreen");
  QApplication application(argc, argv);
  dressApplication();
  applyTheme(false);
  benchmark::Initialize(&argc, argv);
  Bench opened;
  if (!opened.open()) return 1;
  bench = &opened;
  benchmark::RunSpecifiedBenchmarks();
  if (const auto lines = qEnvironmentVariable("BUTTE_STREAM_LINES").toLong(); lines > 0) stream(lines);
}
