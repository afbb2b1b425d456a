#pragma once
#include <QPainter>
#include <QString>

namespace butte::app {

/// One line of text in the painter's font and pen, as QPainter::drawText() sets it, but with its glyphs kept:
/// most of what is painted at a key was painted at the last one. Where it is wider than its room it is cut
/// there.
void paintLine(QPainter& painter, const QRectF& room, Qt::Alignment align, const QString& text);

} // namespace butte::app
