#include "window/application.h"

#include "book/private_files.h"
#include "paint/theme.h"
#include "stations/book/book_page.h"
#include "stations/shelf/shelf_page.h"
#include "stations/stocks/stocks_page.h"
#include "stations/tank/tank_page.h"
#include "window/book_actions.h"
#include "window/file_actions.h"
#include "window/main_window.h"
#include "window/start_mark.h"
#include "window/start_options.h"
#include "window/text_size.h"
#include "wording/spoken_language.h"

#include <QApplication>
#include <QDir>
#include <QElapsedTimer>
#include <QFile>
#include <QFileInfo>
#include <QSettings>
#include <QStandardPaths>
#include <QTemporaryDir>
#include <QTimer>
#include <cstdio>

namespace butte::app {
namespace {

/// Paints the window into a file and ends.
void grabAndQuit(MainWindow& window, const Picture& picture) {
  QTimer::singleShot(400, &window, [&window, picture] {
    constexpr int firstStart = static_cast<int>(stations.size());
    window.resize(picture.width, picture.height);
    if (picture.station == firstStart)
      window.showFirstStart();
    else
      window.showStation(static_cast<Station>(picture.station));
    constexpr int stocks = 3;
    if (picture.section >= 0 && picture.station == stocks)
      window.stocksPage().showPart(static_cast<StocksPage::Part>(picture.section));
    else if (picture.section >= 0 && static_cast<Station>(picture.station) == Station::Shelf)
      window.shelfPage().showView(static_cast<ShelfPage::View>(picture.section));
    else if (picture.section >= 0)
      window.bookPage().showSection(static_cast<BookPage::Section>(picture.section));
    if (!picture.find.isEmpty()) window.findText(picture.find);
    // What is worked out behind the window is part of the picture.
    QApplication::processEvents();
    while (!window.tankPage().isSettled() || !window.shelfPage().isSettled())
      QApplication::processEvents(QEventLoop::AllEvents, 20);
    for (int i = 0; i < 4; ++i) // what is shown for the first time asks for its room, and so on inwards
      QApplication::processEvents();
    const bool written = window.grab().save(picture.path);
    QApplication::exit(written ? 0 : 1);
  });
}

} // namespace

namespace {

/// Nobody is there to press a button.
void askNothing(MainWindow& window, bool& refused) {
  auto& prompts = window.prompts();
  prompts.trouble = [&refused](const QString& words) {
    std::fprintf(stderr, "%s\n", words.toUtf8().constData());
    refused = true;
  };
  prompts.goOn = [](const QString&, const QString&, const QString&) { return false; };
  prompts.words = prompts.fileToOpen =
      prompts.fileToMake = [](const QString&, const QString&, const QString&) { return QString(); };
}

/// The files to render, books as copies: what is painted or printed changes nothing of them.
QStringList asideCopies(const QStringList& files, const QString& folder) {
  QStringList out;
  for (const auto& file : files) {
    const QFileInfo info(file);
    if (!file.endsWith(".butte") || !info.isFile()) {
      out << file;
      continue;
    }
    const auto copy = folder + "/" + info.fileName();
    for (const auto* ending : {"", "-wal", "-journal"})
      QFile::copy(file + ending, copy + ending);
    out << copy;
  }
  return out;
}

/// The person's settings to read, in a file that goes away.
void copySettings(const QSettings& from, QSettings& to) {
  for (const auto& key : from.allKeys())
    if (!key.startsWith("book/")) to.setValue(key, from.value(key));
}

/// A picture, a sheet, labels or a timing, then the end.
int render(QApplication& application, const StartOptions& options, const QElapsedTimer& sinceStart) {
  const QTemporaryDir aside;
  QSettings settings(aside.filePath("settings.ini"), QSettings::IniFormat);
  copySettings(QSettings("butte", "butte"), settings);
  applyTheme(options.dark || settings.value("view/dark", false).toBool());
  MainWindow window(settings, aside.path());
  bool refused = false;
  askNothing(window, refused);
  window.books().start(options.demo, asideCopies(options.files, aside.path()));
  if (refused) return 2;
  if (!options.sheet.isEmpty()) return window.files().exportSheetTo(options.sheet) ? 0 : 1;
  if (!options.labels.isEmpty()) return window.files().exportLabelsTo(options.labels) ? 0 : 1;
  window.show();
  if (options.picture) grabAndQuit(window, *options.picture);
  if (options.timing) {
    QTimer::singleShot(0, &window, [&sinceStart] {
      QApplication::processEvents();
      std::printf("%lld ms\n", static_cast<long long>(sinceStart.elapsed()));
      QApplication::exit(0);
    });
  }
  return application.exec();
}

/// The window to work in.
/// `again`: with which arguments it is to open anew, where it ends with startAgainCode.
int live(QApplication& application, const StartOptions& options, QStringList& again) {
  constexpr int settledAfterMs = 2000; // painted, and what follows in the background begun
  QSettings settings("butte", "butte");
  applyTheme(options.dark || settings.value("view/dark", false).toBool());
  const auto folder = QStandardPaths::writableLocation(QStandardPaths::AppDataLocation);
  book::makePrivateFolder(folder);
  settings.sync();
  QFile::setPermissions(settings.fileName(), QFile::ReadOwner | QFile::WriteOwner);
  StartMark mark(folder);
  MainWindow window(settings, folder);
  window.books().start(options.demo, options.files, mark.unfinished());
  window.show();
  QTimer::singleShot(settledAfterMs, &window, [&mark] { mark.done(); });
  const int code = application.exec();
  if (code == startAgainCode && window.desk().isOpen())
    again << (window.desk().isSample() ? QString("--demo") : window.desk().path());
  return code;
}

int runWith(QApplication& application, const QElapsedTimer& sinceStart, QStringList& again) {
  QApplication::setApplicationDisplayName("Butte");
  speakTheProgramsLanguage();
  const auto options = readStartOptions(application);
  dressApplication();
  return options.rendersOnly() ? render(application, options, sinceStart) : live(application, options, again);
}

} // namespace

int runApplication(int argc, char** argv) {
  QElapsedTimer sinceStart;
  sinceStart.start();
  QCoreApplication::setApplicationName("butte");
  QCoreApplication::setApplicationVersion("0.1.0");
  if (asksForWords(argc, argv)) { // no display is needed to be told
    const QCoreApplication words(argc, argv);
    readStartOptions(words);
    return 0;
  }
  scaleText(textAskedFor(argc, argv).value_or(textPercent(QSettings("butte", "butte"))));
  QStringList again;
  const int code = [&] {
    QApplication application(argc, argv);
    return runWith(application, sinceStart, again);
  }();
  if (code == startAgainCode) startAgain(QStringList{QString::fromLocal8Bit(argv[0])} + again);
  return code;
}

} // namespace butte::app
