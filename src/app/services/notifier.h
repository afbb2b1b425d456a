#pragma once
#include <QString>
#include <functional>

class QSettings;

namespace butte::app {

/// A word on the desktop, where it has a place for such (org.freedesktop.Notifications): once a day at most.
class Notifier {
public:
  explicit Notifier(QSettings& settings);
  /// Says it unless something was said today already. `day`: "2026-03-02".
  void sayOnce(const QString& day, const QString& title, const QString& text);
  /// Sends it; tests put their own in its place.
  std::function<void(const QString& title, const QString& text)> send;

private:
  QSettings& m_settings;
};

} // namespace butte::app
