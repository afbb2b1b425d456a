#include "print/bench_sheet.h"

#include "paint/theme.h"
#include "wording/tr.h"

#include <QAbstractTextDocumentLayout>
#include <QBuffer>
#include <QPagedPaintDevice>
#include <QPainter>
#include <QPdfWriter>
#include <QSaveFile>
#include <QTextDocument>

namespace butte::app {

void paintSheet(const QString& html, QPagedPaintDevice& device) {
  QPainter painter(&device);
  const QSizeF page(device.width(), device.height());
  QTextDocument document;
  document.setDocumentMargin(0);
  document.documentLayout()->setPaintDevice(&device);
  QFont face("B612");
  face.setPointSizeF(9);
  document.setDefaultFont(face);
  document.setHtml(html);
  document.setTextWidth(page.width());
  double scale = 1;
  // One page: a taller text is set as if on a wider page and drawn smaller.
  while (document.size().height() * scale > page.height() && scale > 0.4) {
    scale *= 0.96;
    document.setTextWidth(page.width() / scale);
  }
  painter.scale(scale, scale);
  QAbstractTextDocumentLayout::PaintContext context;
  context.palette.setColor(QPalette::Text, Qt::black); // paper is white, whatever the screen's theme
  document.documentLayout()->draw(&painter, context);
}

QString writeSheetPdf(const QString& html, const QString& path, const QString& title) {
  QSaveFile file(path);
  if (!file.open(QIODevice::WriteOnly))
    return tr("The sheet can't be written to %1: %2").arg(path, file.errorString());
  QBuffer buffer;
  buffer.open(QIODevice::WriteOnly);
  {
    QPdfWriter writer(&buffer);
    writer.setTitle(title);
    writer.setCreator("Butte");
    writer.setPageSize(QPageSize(QPageSize::A4));
    writer.setPageMargins(QMarginsF(14, 12, 14, 12), QPageLayout::Millimeter);
    writer.setResolution(300);
    paintSheet(html, writer);
  }
  if (file.write(buffer.data()) != buffer.data().size() || !file.commit())
    return tr("The sheet can't be written to %1: %2").arg(path, file.errorString());
  return {};
}

} // namespace butte::app
