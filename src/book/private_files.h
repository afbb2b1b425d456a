#pragma once
#include <QString>

namespace butte::book {

/// A farm's records are for their owner alone.

/// The folder, made where it is missing; what is made is the owner's alone (0700).
bool makePrivateFolder(const QString& path);
/// An empty file for the owner alone (0600), which SQLite then fills. False where something is there already.
bool makePrivateFile(const QString& path);
/// A copy of a file, for the owner alone.
bool copyPrivately(const QString& from, const QString& to);

} // namespace butte::book
