// How a book of ten years answers. BUTTE_BOOK names a book that make_book has made.
#include "book/open_store.h"

#include <QCoreApplication>
#include <benchmark/benchmark.h>
#include <cstdlib>

using namespace butte::book;

namespace {

std::string path() {
  const char* named = std::getenv("BUTTE_BOOK");
  return named ? named : "large.butte";
}

Store& store() {
  static auto opened = openStore(path(), OpenFor::Writing);
  if (!opened) {
    std::fprintf(stderr, "no book at %s; make one with make_book\n", path().c_str());
    std::exit(1);
  }
  return **opened;
}

void open(benchmark::State& state) {
  store();
  for (auto _ : state)
    benchmark::DoNotOptimize(openStore(path(), OpenFor::Reading));
}
BENCHMARK(open)->Unit(benchmark::kMillisecond);

void firstPageOfBatches(benchmark::State& state) {
  for (auto _ : state)
    benchmark::DoNotOptimize(store().batches({}, std::nullopt, 200));
}
BENCHMARK(firstPageOfBatches)->Unit(benchmark::kMillisecond);

void lastPageOfBatches(benchmark::State& state) {
  BatchHead last;
  last.at = {1500000000};
  for (auto _ : state)
    benchmark::DoNotOptimize(store().batches({}, last, 200));
}
BENCHMARK(lastPageOfBatches)->Unit(benchmark::kMillisecond);

void filterByLot(benchmark::State& state) {
  BatchFilter filter;
  filter.lot = "kno-2";
  for (auto _ : state)
    benchmark::DoNotOptimize(store().batchCount(filter));
}
BENCHMARK(filterByLot)->Unit(benchmark::kMillisecond);

void filterByProduct(benchmark::State& state) {
  BatchFilter filter;
  filter.product = "sulfate";
  for (auto _ : state)
    benchmark::DoNotOptimize(store().batches(filter, std::nullopt, 200));
}
BENCHMARK(filterByProduct)->Unit(benchmark::kMillisecond);

void picture(benchmark::State& state) {
  for (auto _ : state)
    benchmark::DoNotOptimize(store().batchBuckets({}, 40 * 86400));
}
BENCHMARK(picture)->Unit(benchmark::kMillisecond);

void find(benchmark::State& state, const char* words) {
  for (auto _ : state)
    benchmark::DoNotOptimize(store().search(words, 12));
}
BENCHMARK_CAPTURE(find, oneLetter, "s")->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(find, crop, "strawb")->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(find, lotAndHouse, "kno-3 house 12")->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(find, nothing, "zzzz")->Unit(benchmark::kMillisecond);

void pageOfReadings(benchmark::State& state) {
  for (auto _ : state)
    benchmark::DoNotOptimize(store().readings(std::nullopt, 400));
}
BENCHMARK(pageOfReadings)->Unit(benchmark::kMillisecond);

void listOfFormulas(benchmark::State& state) {
  for (auto _ : state)
    benchmark::DoNotOptimize(store().list(Kind::Formula, false));
}
BENCHMARK(listOfFormulas)->Unit(benchmark::kMillisecond);

} // namespace

int main(int argc, char** argv) {
  QCoreApplication application(argc, argv);
  benchmark::Initialize(&argc, argv);
  benchmark::RunSpecifiedBenchmarks();
  return 0;
}
