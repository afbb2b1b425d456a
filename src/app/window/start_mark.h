#pragma once
#include <QString>

namespace butte::app {

/// A mark in the data folder while the program starts. Found at the next start, it says that the last one did
/// not get as far as a window to work in: what it opened then is not opened again unasked.
class StartMark {
public:
  explicit StartMark(const QString& folder);
  ~StartMark() { done(); }
  StartMark(const StartMark&) = delete;
  StartMark& operator=(const StartMark&) = delete;

  /// How many starts in a row were not finished before this one.
  int unfinished() const { return m_unfinished; }
  /// The window is there and has been worked in: this start is none that failed.
  void done();

private:
  QString m_path;
  int m_unfinished = 0;
  bool m_standing = false;
};

} // namespace butte::app
