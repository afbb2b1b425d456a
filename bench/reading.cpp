// How long it takes to read a paper of two hundred lines, and a logger's table, beside the paper of ten
// lines.
#include "report/report_text.h"
#include "table/plain_table.h"

#include <benchmark/benchmark.h>

namespace {

using namespace butte::reading;

std::string sheetOf(std::int64_t lines) {
  std::string text = "Analyte               Result   Flag   RL      Units\n";
  for (std::int64_t i = 1; i < lines; ++i)
    text += "Calcium, Total        35.2     B      0.002   mg/L\n";
  return text;
}

void report(benchmark::State& state) {
  const auto text = sheetOf(state.range(0));
  for (auto _ : state)
    benchmark::DoNotOptimize(readReportText(text));
}
BENCHMARK(report)->Arg(10)->Arg(200)->Unit(benchmark::kMillisecond);

void table(benchmark::State& state) {
  std::string text = "tank,time,EC,pH\n";
  for (std::int64_t i = 0; i < state.range(0); ++i)
    text += "North,2026-03-04T07:15:00,1.85,5.9\n";
  for (auto _ : state) {
    const auto read = readForeignTable(text);
    benchmark::DoNotOptimize(plainTable(*read, proposedMapping(*read)));
  }
}
BENCHMARK(table)->Arg(200)->Arg(20000)->Unit(benchmark::kMillisecond);

} // namespace

BENCHMARK_MAIN();
