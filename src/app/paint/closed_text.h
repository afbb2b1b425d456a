#pragma once
#include <QTextBrowser>
#include <QTextDocument>

namespace butte::app {

/// Marked text that opens nothing outside itself: no pictures, no style sheets, no links.
class ClosedText : public QTextDocument {
public:
  using QTextDocument::QTextDocument;

protected:
  /// Empty, not nothing: where a view has nothing to offer, Qt opens the file itself.
  QVariant loadResource(int, const QUrl&) override { return QByteArray(); }
};

/// The same to look at: a sheet, also one that came in with somebody's book.
class ClosedTextView : public QTextBrowser {
public:
  explicit ClosedTextView(QWidget* parent = nullptr) : QTextBrowser(parent) {
    setDocument(new ClosedText(this));
    setOpenLinks(false);
  }
  QVariant loadResource(int, const QUrl&) override { return QByteArray(); }
};

} // namespace butte::app
