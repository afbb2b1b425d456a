#pragma once
#include <QObject>

namespace butte::app {

/// Asks the desktop not to dim or lock the screen while hands are busy (org.freedesktop.ScreenSaver). Where
/// there is no such desktop nothing happens.
class KeepAwake : public QObject {
  Q_OBJECT

public:
  explicit KeepAwake(QObject* parent = nullptr) : QObject(parent) {}
  ~KeepAwake() override { set(false, {}); }
  void set(bool on, const QString& why);

private:
  bool m_on = false;
  uint m_cookie = 0; ///< what the desktop gave for it
};

} // namespace butte::app
