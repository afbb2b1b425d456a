#include "window/application.h"

#include "paint/theme.h"
#include "stations/book/book_page.h"
#include "stations/stocks/stocks_page.h"
#include "window/book_actions.h"
#include "window/file_actions.h"
#include "window/main_window.h"
#include "wording/spoken_language.h"

#include <QApplication>
#include <QCommandLineParser>
#include <QDir>
#include <QElapsedTimer>
#include <QSettings>
#include <QStandardPaths>
#include <QTemporaryDir>
#include <QTimer>
#include <cstdio>

namespace butte::app {
namespace {

/// What a picture for docs/screenshots shows.
struct Picture {
  QString path;
  int station = 2;  ///< 6: the first start
  int section = -1; ///< of the Book or the Stocks station
  QString find;     ///< typed into the finder
};

/// Paints the window into a file and ends.
void grabAndQuit(MainWindow& window, const Picture& picture) {
  QTimer::singleShot(400, &window, [&window, picture] {
    constexpr int firstStart = static_cast<int>(stations.size());
    window.resize(1280, 800);
    if (picture.station == firstStart)
      window.showFirstStart();
    else
      window.showStation(static_cast<Station>(picture.station));
    constexpr int stocks = 3;
    if (picture.section >= 0 && picture.station == stocks)
      window.stocksPage().showPart(static_cast<StocksPage::Part>(picture.section));
    else if (picture.section >= 0)
      window.bookPage().showSection(static_cast<BookPage::Section>(picture.section));
    if (!picture.find.isEmpty()) window.findText(picture.find);
    for (int i = 0; i < 4; ++i) // what is shown for the first time asks for its room, and so on inwards
      QApplication::processEvents();
    const bool written = window.grab().save(picture.path);
    QApplication::exit(written ? 0 : 1);
  });
}

} // namespace

int runApplication(int argc, char** argv) {
  QElapsedTimer sinceStart;
  sinceStart.start();
  QApplication application(argc, argv);
  QApplication::setApplicationName("butte");
  QApplication::setApplicationDisplayName("Butte");
  QApplication::setApplicationVersion("0.1.0");
  speakTheProgramsLanguage();
  QCommandLineParser parser;
  parser.setApplicationDescription("Nutrient solution from dry salts.");
  parser.addHelpOption();
  parser.addVersionOption();
  parser.addPositionalArgument("file",
                               "a farm book to open (.butte), or a formula to bring in (.butte.json)");
  const QCommandLineOption demo("demo", "open the sample book, Ormsey Glass");
  const QCommandLineOption darkOption("dark", "start in the dark theme");
  const QCommandLineOption grab("screenshot", "paint the window into a PNG and end", "file");
  const QCommandLineOption station("station", "with --screenshot: 0 water ... 5 book, 6 the first start",
                                   "number", "2");
  const QCommandLineOption sheet("sheet", "write the bench sheet as a PDF and end", "file");
  const QCommandLineOption labels("labels", "write the tanks' labels as a PDF and end", "file");
  const QCommandLineOption timing("time-start", "print the milliseconds to a usable window and end");
  const QCommandLineOption section("section",
                                   "with --screenshot: section of the book (0 batches ... 9 copies) or part "
                                   "of the stocks (0 way ... 6 levels)",
                                   "number");
  const QCommandLineOption find("find", "with --screenshot: text typed into the finder", "text");
  parser.addOptions({demo, darkOption, grab, station, section, find, sheet, labels, timing});
  parser.process(application);

  QSettings settings("butte", "butte");
  dressApplication();
  applyTheme(parser.isSet(darkOption) || settings.value("view/dark", false).toBool());
  const bool ephemeral =
      parser.isSet(grab) || parser.isSet(timing) || parser.isSet(sheet) || parser.isSet(labels);
  QTemporaryDir aside; // pictures and timings touch nothing of the person's
  const auto folder =
      ephemeral ? aside.path() : QStandardPaths::writableLocation(QStandardPaths::AppDataLocation);
  QDir().mkpath(folder);
  MainWindow window(settings, folder);
  bool refused = false;
  if (ephemeral) { // nobody is there to press a button
    window.prompts().trouble = [&refused](const QString& words) {
      std::fprintf(stderr, "%s\n", words.toUtf8().constData());
      refused = true;
    };
  }
  window.books().start(parser.isSet(demo), parser.positionalArguments());
  if (refused) return 2;
  if (parser.isSet(sheet)) return window.files().exportSheetTo(parser.value(sheet)) ? 0 : 1;
  if (parser.isSet(labels)) return window.files().exportLabelsTo(parser.value(labels)) ? 0 : 1;
  window.show();
  if (parser.isSet(grab))
    grabAndQuit(window, {parser.value(grab), parser.value(station).toInt(),
                         parser.isSet(section) ? parser.value(section).toInt() : -1, parser.value(find)});
  if (parser.isSet(timing)) {
    QTimer::singleShot(0, &window, [&sinceStart] {
      QApplication::processEvents();
      std::printf("%lld ms\n", static_cast<long long>(sinceStart.elapsed()));
      QApplication::exit(0);
    });
  }
  return application.exec();
}

} // namespace butte::app
