#include "services/keep_awake.h"

#include <QCoreApplication>
#include <QDBusConnection>
#include <QDBusMessage>
#include <QDBusPendingCallWatcher>
#include <QDBusPendingReply>

namespace butte::app {

namespace {
QDBusMessage screenSaver(const QString& method) {
  return QDBusMessage::createMethodCall("org.freedesktop.ScreenSaver", "/org/freedesktop/ScreenSaver",
                                        "org.freedesktop.ScreenSaver", method);
}
} // namespace

void KeepAwake::set(bool on, const QString& why) {
  if (on == m_on || qEnvironmentVariableIsEmpty("DBUS_SESSION_BUS_ADDRESS")) return;
  m_on = on;
  auto bus = QDBusConnection::sessionBus();
  if (!on) {
    if (m_cookie == 0) return;
    auto stop = screenSaver("UnInhibit");
    stop << m_cookie;
    m_cookie = 0;
    bus.send(stop);
    return;
  }
  auto start = screenSaver("Inhibit");
  start << QCoreApplication::applicationName() << why;
  auto* answer = new QDBusPendingCallWatcher(bus.asyncCall(start), this);
  connect(answer, &QDBusPendingCallWatcher::finished, this, [this](QDBusPendingCallWatcher* call) {
    const QDBusPendingReply<uint> reply = *call;
    call->deleteLater();
    if (!reply.isValid()) return;
    m_cookie = reply.value();
    if (m_on) return;
    m_on = true; // it was ended before the answer came
    set(false, {});
  });
}

} // namespace butte::app
