/// What a keystroke costs in the window, from the edit to the painted picture, at each station: the demo's
/// potassium goes up and down as if typed. Without a screen; the book is a file in a folder of its own.
#include "document/formula_editor.h"
#include "document/formula_file.h"
#include "paint/theme.h"
#include "support/told.h"
#include "window/main_window.h"

#include <QApplication>
#include <QFile>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QSettings>
#include <QTemporaryDir>
#include <algorithm>
#include <benchmark/benchmark.h>
#include <chrono>
#include <functional>

using namespace butte::app;

namespace {

/// A window of its own, with the demo's formula in its book.
struct Farm {
  QTemporaryDir folder;
  QSettings settings{folder.filePath("settings.ini"), QSettings::IniFormat};
  MainWindow window{settings, folder.filePath("data")};

  bool open() {
    const auto demo = readFormulaFile(":/demo/ormsey.json");
    if (!demo || window.desk().createBook(folder.filePath("farm.butte"), "Farm") ||
        window.desk().addFormula(*demo, told("demo")))
      return false;
    window.resize(1280, 800);
    window.show();
    QApplication::processEvents();
    return true;
  }
};

Farm* farm = nullptr; ///< one for all measurements, as long as there is an application

constexpr const char* potassium = "/target/rows/3/mg_per_l";

void keystroke(benchmark::State& state) {
  farm->window.showStation(static_cast<Station>(state.range(0)));
  QApplication::processEvents();
  std::vector<double> milliseconds;
  for (int i = 0; auto _ : state) {
    const auto start = std::chrono::steady_clock::now();
    farm->window.editor().set(told("potassium"), potassium, i++ % 2 == 0 ? "206" : "205", true);
    QApplication::processEvents();
    milliseconds.push_back(
        std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - start).count());
  }
  std::sort(milliseconds.begin(), milliseconds.end());
  state.counters["p50_ms"] = milliseconds[milliseconds.size() / 2];
  state.counters["p99_ms"] = milliseconds[milliseconds.size() * 99 / 100];
}

/// The same without painting and pages: the file's text checked and kept, the answer computed.
void editAlone(benchmark::State& state) {
  const auto demo = readFormulaFile(":/demo/ormsey.json");
  FormulaEditor editor;
  if (!demo) return state.SkipWithError("the demo does not open");
  editor.load(*demo);
  for (int i = 0; auto _ : state)
    editor.set(told("potassium"), potassium, i++ % 2 == 0 ? "206" : "205", true);
}

} // namespace

BENCHMARK(editAlone)->Unit(benchmark::kMicrosecond);
/// Dark and light in turns, everything painted.
void themeSwitch(benchmark::State& state) {
  farm->window.showStation(Station::Formula);
  QApplication::processEvents();
  for (bool dark = false; auto _ : state) {
    dark = !dark;
    applyTheme(dark);
    emit farm->window.editor().changed();
    QApplication::processEvents();
  }
  applyTheme(false);
}

/// The same repaint with nothing changed: what a key costs is told against it.
void repaintAlone(benchmark::State& state) {
  farm->window.showStation(static_cast<Station>(state.range(0)));
  QApplication::processEvents();
  for (auto _ : state) {
    farm->window.update();
    QApplication::processEvents();
  }
}

BENCHMARK(themeSwitch)->Unit(benchmark::kMillisecond);
BENCHMARK(repaintAlone)->ArgName("station")->DenseRange(0, 5)->Unit(benchmark::kMicrosecond);
/// Enough keys that the slowest of a hundred is no accident.
BENCHMARK(keystroke)->ArgName("station")->DenseRange(0, 5)->Iterations(500)->Unit(benchmark::kMicrosecond);

/// How long the window's thread is held at most while a key goes into a pasted report of so many lines, until
/// what was read of it stands beside it.
void keyInAPaste(benchmark::State& state) {
  const auto path = farm->folder.filePath("report.txt");
  QFile file(path);
  if (!file.open(QIODevice::WriteOnly)) return state.SkipWithError("no file");
  for (int i = 0; i < state.range(0); ++i)
    file.write(i % 3 == 0   ? "Calcium    78    mg/l\n"
               : i % 3 == 1 ? "Odd thing 12 mg/l\n"
                            : "a line of words\n");
  file.close();
  farm->window.openReport(path);
  auto* text = farm->window.findChild<QPlainTextEdit*>("reportText");
  auto* take = farm->window.findChild<QPushButton*>("takeReport");
  double held = 0;
  const auto pass = [&](const std::function<void()>& work) {
    const auto start = std::chrono::steady_clock::now();
    work();
    held = std::max(
        held, std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - start).count());
  };
  const auto settle = [&] {
    do
      pass([] { QApplication::processEvents(QEventLoop::WaitForMoreEvents, 20); });
    while (!take->isEnabled());
    QApplication::processEvents();
  };
  settle();
  held = 0;
  for (auto _ : state) {
    pass([&] { text->insertPlainText("7"); });
    settle();
  }
  state.counters["held_ms"] = held;
}
BENCHMARK(keyInAPaste)->ArgName("lines")->Arg(200)->Arg(20000)->Iterations(10)->Unit(benchmark::kMillisecond);

int main(int argc, char** argv) {
  qputenv("QT_QPA_PLATFORM", "offscreen");
  QApplication application(argc, argv);
  dressApplication();
  applyTheme(false);
  benchmark::Initialize(&argc, argv);
  Farm opened;
  if (!opened.open()) return 1;
  farm = &opened;
  benchmark::RunSpecifiedBenchmarks();
}
