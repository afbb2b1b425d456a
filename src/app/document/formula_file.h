#pragma once
#include "base/result.h"
#include "json_reader.h"

#include <QString>

class QFileDevice;

/// Formula files: whole or not at all.
namespace butte::app {

core::Result<exchange::Json> readFormulaFile(const QString& path);

/// Writes to a temporary file beside it and renames, so that a crash or a full disk leaves the old file
/// whole. Nothing when it went well.
std::optional<core::Problem> writeFormulaFile(const QString& path, const exchange::Json& json);

/// All of a file that a person chose. Errors: BadFile for a folder, a device or a pipe (some of these never
/// end), for one that can't be read or is larger than `mostBytes`.
core::Result<std::string> fileBytes(const QString& path, qint64 mostBytes);

/// Writes the text and pushes it to the device, so that a full disk shows now and not after the file is
/// closed.
bool writeAll(QFileDevice& file, const std::string& text);

} // namespace butte::app
