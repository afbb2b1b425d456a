#include "services/notifier.h"

#include <QDBusConnection>
#include <QDBusMessage>
#include <QSettings>
#include <QVariantMap>

namespace butte::app {

namespace {
constexpr auto lastKey = "agenda/said_on";

/// Nobody waits for an answer: a desktop without such a place stays silent.
void toDesktop(const QString& title, const QString& text) {
  auto bus = QDBusConnection::sessionBus();
  if (!bus.isConnected()) return;
  auto call =
      QDBusMessage::createMethodCall("org.freedesktop.Notifications", "/org/freedesktop/Notifications",
                                     "org.freedesktop.Notifications", "Notify");
  constexpr uint replacesNone = 0;
  constexpr int usualTime = -1;
  call << QString("Butte") << replacesNone << QString() << title << text.toHtmlEscaped() << QStringList()
       << QVariantMap() << usualTime;
  bus.send(call);
}
} // namespace

Notifier::Notifier(QSettings& settings) : send(toDesktop), m_settings(settings) {}

void Notifier::sayOnce(const QString& day, const QString& title, const QString& text) {
  if (m_settings.value(lastKey).toString() == day) return;
  m_settings.setValue(lastKey, day);
  send(title, text);
}

} // namespace butte::app
