#include "print/paper.h"

#include "paint/closed_text.h"
#include "wording/tr.h"

#include <QAbstractTextDocumentLayout>
#include <QBuffer>
#include <QPagedPaintDevice>
#include <QPainter>
#include <QPdfWriter>
#include <QSaveFile>

#include <algorithm>
#include <memory>
#include <vector>

namespace butte::app {
namespace {

constexpr double leastScale = 0.85; // 9 pt type stays above 7.5 pt
constexpr double footLines = 1.6;   // of the page's foot

/// A block, or as much of it as one page takes.
struct Piece {
  const QTextDocument* text;
  int page = 0;
  double top = 0; ///< on its page, in the device's units
  double scale = 1;
  double from = 0; ///< in the text's own units
  double height = 0;
};

QFont sheetFace() {
  QFont face("B612");
  face.setPointSizeF(9);
  return face;
}

class Layout {
public:
  Layout(const QStringList& blocks, QPaintDevice& device, QSizeF page) : m_page(page) {
    for (const auto& html : blocks) {
      auto text = std::make_unique<ClosedText>();
      text->setDocumentMargin(0);
      text->documentLayout()->setPaintDevice(&device);
      text->setDefaultFont(sheetFace());
      text->setHtml(html);
      text->setTextWidth(page.width());
      place(*text);
      m_texts.push_back(std::move(text));
    }
  }

  const std::vector<Piece>& pieces() const { return m_pieces; }
  PaperUse use() const { return m_use; }

private:
  void place(QTextDocument& text) {
    double height = text.size().height();
    if (height > m_page.height()) return placeTall(text);
    if (m_top + height > m_page.height()) nextPage();
    m_pieces.push_back({&text, m_use.pages - 1, m_top, 1, 0, height});
    m_top += height;
  }

  void placeTall(QTextDocument& text) {
    if (m_top > 0) nextPage();
    double scale = 1;
    while (scale > leastScale && text.size().height() * scale > m_page.height()) {
      scale = std::max(leastScale, scale * 0.97);
      text.setTextWidth(m_page.width() / scale);
    }
    m_use.scale = std::min(m_use.scale, scale);
    const double pageHeight = m_page.height() / scale;
    if (text.size().height() > pageHeight) text.setPageSize({m_page.width() / scale, pageHeight});
    const int pages = std::max(1, text.pageCount());
    for (int i = 0; i < pages; ++i) {
      if (i > 0) nextPage();
      m_pieces.push_back({&text, m_use.pages - 1, 0, scale, i * pageHeight, pageHeight});
    }
    m_top = m_page.height();
  }

  void nextPage() {
    ++m_use.pages;
    m_top = 0;
  }

  QSizeF m_page;
  double m_top = 0;
  PaperUse m_use;
  std::vector<std::unique_ptr<QTextDocument>> m_texts;
  std::vector<Piece> m_pieces;
};

void draw(const Piece& piece, double width, QPainter& painter) {
  painter.save();
  painter.translate(0, piece.top);
  painter.scale(piece.scale, piece.scale);
  painter.translate(0, -piece.from);
  const QRectF part(0, piece.from, width / piece.scale, piece.height);
  painter.setClipRect(part);
  QAbstractTextDocumentLayout::PaintContext context;
  context.clip = part;
  context.palette.setColor(QPalette::Text, Qt::black); // paper is white, whatever the screen's theme
  piece.text->documentLayout()->draw(&painter, context);
  painter.restore();
}

} // namespace

PaperUse paintPages(const QStringList& blocks, QPagedPaintDevice& device) {
  QPainter painter(&device);
  painter.setFont(sheetFace());
  const double foot = painter.fontMetrics().height() * footLines;
  const Layout layout(blocks, device, QSizeF(device.width(), device.height() - foot));
  int page = 0;
  const auto number = [&] {
    if (layout.use().pages < 2) return;
    painter.drawText(QRectF(0, device.height() - foot, device.width(), foot),
                     Qt::AlignRight | Qt::AlignBottom,
                     tr("page %1 of %2").arg(page + 1).arg(layout.use().pages));
  };
  for (const auto& piece : layout.pieces()) {
    for (; page < piece.page; ++page) {
      number();
      device.newPage();
    }
    draw(piece, device.width(), painter);
  }
  number();
  return layout.use();
}

QString writePdf(const QStringList& blocks, const QPageSize& paper, const QString& path,
                 const QString& title) {
  QSaveFile file(path);
  if (!file.open(QIODevice::WriteOnly))
    return tr("The sheet can't be written to %1: %2").arg(path, file.errorString());
  QBuffer buffer;
  buffer.open(QIODevice::WriteOnly);
  {
    QPdfWriter writer(&buffer);
    writer.setTitle(title);
    writer.setCreator("Butte");
    writer.setPageSize(paper);
    writer.setPageMargins(QMarginsF(14, 12, 14, 12), QPageLayout::Millimeter);
    writer.setResolution(300);
    paintPages(blocks, writer);
  }
  if (file.write(buffer.data()) != buffer.data().size() || !file.commit())
    return tr("The sheet can't be written to %1: %2").arg(path, file.errorString());
  return {};
}

} // namespace butte::app
