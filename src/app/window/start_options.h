#pragma once
#include <QString>
#include <QStringList>
#include <optional>

class QCoreApplication;

namespace butte::app {

/// What a picture for docs/screenshots shows.
struct Picture {
  QString path;
  int station = 2;  ///< 6: the first start
  int section = -1; ///< of the Book or the Stocks station; -1: as it opens
  QString find;     ///< typed into the finder
  int width = 1280, height = 800;
};

/// What the program was asked for at its start.
struct StartOptions {
  bool demo = false, dark = false, timing = false;
  std::optional<Picture> picture;
  QString sheet, labels; ///< files to write; empty: none
  QStringList files;     ///< books to open, formulas to bring in

  /// Paints or prints and ends: touches no book of the person and asks nothing.
  bool rendersOnly() const { return picture || timing || !sheet.isEmpty() || !labels.isEmpty(); }
};

/// Whether it only asks for --help or --version, which need no display.
bool asksForWords(int argc, char** argv);

/// The --text percent, before there is an application; nothing where it is not given.
std::optional<int> textAskedFor(int argc, char** argv);

/// Reads the command line. Ends the program, with a sentence, where a word of it makes no sense.
StartOptions readStartOptions(const QCoreApplication& application);

} // namespace butte::app
