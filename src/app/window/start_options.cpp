#include "window/start_options.h"

#include "stations/book/book_page.h"
#include "stations/shelf/shelf_page.h"
#include "stations/stocks/stocks_page.h"
#include "window/stations.h"
#include "window/text_size.h"

#include <QCommandLineParser>
#include <QCoreApplication>
#include <algorithm>
#include <cstdio>
#include <cstdlib>
#include <cstring>
#include <string_view>

namespace butte::app {
namespace {

/// A whole number within its limits; else the program ends and says what would be right.
int number(const QCommandLineParser& parser, const QCommandLineOption& option, int least, int most) {
  bool whole = false;
  const int value = parser.value(option).toInt(&whole);
  if (whole && value >= least && value <= most) return value;
  std::fprintf(stderr, "--%s %s: a whole number from %d to %d is wanted.\n",
               qPrintable(option.names().constFirst()), qPrintable(parser.value(option)), least, most);
  std::exit(2);
}

constexpr int firstStart = static_cast<int>(std::size(stations));

constexpr int leastDots = 300, mostDots = 7680; // a telephone's width to a wall of a screen

/// How many sections a station has; 0: none.
int sectionsOf(int station) {
  if (station == static_cast<int>(Station::Stocks)) return StocksPage::partCount;
  if (station == static_cast<int>(Station::Shelf)) return ShelfPage::viewCount;
  return station == static_cast<int>(Station::Book) ? BookPage::sectionCount : 0;
}

} // namespace

bool asksForWords(int argc, char** argv) {
  for (int i = 1; i < argc; ++i)
    for (const auto* word : {"--help", "-h", "-?", "--help-all", "--version", "-v"})
      if (std::strcmp(argv[i], word) == 0) return true;
  return false;
}

std::optional<int> textAskedFor(int argc, char** argv) {
  constexpr std::string_view joined = "--text=";
  for (int i = 1; i < argc; ++i) {
    if (std::string_view(argv[i]).starts_with(joined)) return std::atoi(argv[i] + joined.size());
    if (std::strcmp(argv[i], "--text") == 0 && i + 1 < argc) return std::atoi(argv[i + 1]);
  }
  return std::nullopt;
}

StartOptions readStartOptions(const QCoreApplication& application) {
  QCommandLineParser parser;
  parser.setApplicationDescription("Nutrient solution from dry salts.");
  parser.addHelpOption();
  parser.addVersionOption();
  parser.addPositionalArgument("file",
                               "a farm book to open (.butte), or a formula to bring in (.butte.json)");
  const QCommandLineOption demo("demo", "open the sample book, Ormsey Glass");
  const QCommandLineOption dark("dark", "start in the dark theme");
  const QCommandLineOption grab("screenshot", "paint the window into a PNG and end", "file");
  const QCommandLineOption station("station", "with --screenshot: 0 water ... 5 book, 6 the first start",
                                   "number", "2");
  const QCommandLineOption sheet("sheet", "write the bench sheet as a PDF and end", "file");
  const QCommandLineOption labels("labels", "write the tanks' labels as a PDF and end", "file");
  const QCommandLineOption timing("time-start", "print the milliseconds to a usable window and end");
  const QCommandLineOption section("section",
                                   "with --screenshot: section of the book (0 batches ... 10 copies) or part "
                                   "of the stocks (0 way ... 6 levels)",
                                   "number");
  const QCommandLineOption find("find", "with --screenshot: text typed into the finder", "text");
  const QCommandLineOption width("width", "with --screenshot: dots across", "number", "1280");
  const QCommandLineOption height("height", "with --screenshot: dots from top to bottom", "number", "800");
  const QCommandLineOption text("text", "size of the text, in percent of the usual", "number", "100");
  parser.addOptions({demo, dark, text, grab, station, section, find, width, height, sheet, labels, timing});
  parser.process(application);

  StartOptions out;
  out.demo = parser.isSet(demo);
  out.dark = parser.isSet(dark);
  out.timing = parser.isSet(timing);
  out.sheet = parser.value(sheet);
  out.labels = parser.value(labels);
  number(parser, text, textPercents.front(), textPercents.back()); // taken before: textAskedFor()
  out.files = parser.positionalArguments();
  if (!parser.isSet(grab)) return out;
  out.picture = Picture{parser.value(grab), number(parser, station, 0, firstStart), -1, parser.value(find)};
  out.picture->width = number(parser, width, leastDots, mostDots);
  out.picture->height = number(parser, height, leastDots, mostDots);
  if (parser.isSet(section))
    out.picture->section = number(parser, section, 0, std::max(0, sectionsOf(out.picture->station) - 1));
  return out;
}

} // namespace butte::app
