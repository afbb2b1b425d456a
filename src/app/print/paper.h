#pragma once
#include <QPageSize>
#include <QString>
#include <QStringList>

class QPagedPaintDevice;

namespace butte::app {

/// What it took to lay text on paper.
struct PaperUse {
  int pages = 1;
  double scale = 1; ///< of the smallest type against what was set
};

/// Lays blocks of text (HTML) one under the other. A block that fits a page is never broken: it begins a new
/// one where it must. A taller one is set a little smaller if that makes it fit, else it runs on over as many
/// pages as it needs, and every page says which it is of how many.
PaperUse paintPages(const QStringList& blocks, QPagedPaintDevice& device);

/// The same as a PDF. Empty when it went well, else what went wrong. An existing file is replaced only by a
/// whole one.
QString writePdf(const QStringList& blocks, const QPageSize& paper, const QString& path,
                 const QString& title);

} // namespace butte::app
