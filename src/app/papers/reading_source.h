#pragma once

namespace butte::app {

/// What was read from, as its readings stand beside it: where each of its lines is, in dots of the widget.
class ReadingSource {
public:
  virtual ~ReadingSource() = default;
  /// Line from 1.
  virtual int lineTop(int line) const = 0;
  virtual int lineHeight(int line) const = 0;
};

} // namespace butte::app
