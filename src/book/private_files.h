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
/// A file that another user left where only ours can stand: what is in it stays, it is ours from now on. True
/// too where it was ours before, or is not there. False where it holds something that can't be read.
bool makeOurs(const QString& path);

} // namespace butte::book
