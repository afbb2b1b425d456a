#pragma once
#include <QString>

class QPagedPaintDevice;

namespace butte::app {

/// Lays the sheet on one page of the device, in smaller type where it must.
void paintSheet(const QString& html, QPagedPaintDevice& device);

/// The sheet as a PDF (A4). Empty when it went well, else what went wrong. An existing file is replaced only
/// by a whole one.
QString writeSheetPdf(const QString& html, const QString& path, const QString& title);

} // namespace butte::app
