#include "mqtt_link.h"

#include <QHostAddress>
#include <QHostInfo>
#include <QSocketNotifier>
#include <mosquitto.h>

namespace butte::ports {

namespace {
constexpr int brokerAgainMilliseconds = 2000, miscMilliseconds = 500, keepAliveSeconds = 15,
              wholePackets = 20;

void startLibrary() {
  static const bool started = [] {
    mosquitto_lib_init();
    return true;
  }();
  static_cast<void>(started);
}

QString said(int code) {
  return QString::fromUtf8(mosquitto_strerror(code));
}
} // namespace

MqttLink::MqttLink(const devices::PortAddress& broker, const QString& user, const QString& password,
                   QObject* parent)
    : QObject(parent), m_broker(broker), m_user(user), m_password(password) {
  startLibrary();
  m_misc.setInterval(miscMilliseconds);
  connect(&m_misc, &QTimer::timeout, this, [this] {
    if (!m_mosquitto) return;
    if (const int code = mosquitto_loop_misc(m_mosquitto); code != MOSQ_ERR_SUCCESS) return lose(said(code));
    watchSocket();
  });
  m_again.setSingleShot(true);
  m_again.setInterval(brokerAgainMilliseconds);
  connect(&m_again, &QTimer::timeout, this, &MqttLink::tryNow);
}

MqttLink::~MqttLink() {
  blockSignals(true);
  close();
}

void MqttLink::open() {
  if (m_wanted) return;
  m_wanted = true;
  tryNow();
}

void MqttLink::close() {
  m_wanted = false;
  m_again.stop();
  if (m_mosquitto && m_isOpen) mosquitto_disconnect(m_mosquitto);
  letGo();
}

void MqttLink::letGo() {
  m_misc.stop();
  m_reads.reset();
  m_writes.reset();
  if (m_lookup >= 0) QHostInfo::abortHostLookup(m_lookup);
  m_lookup = -1;
  if (m_mosquitto) mosquitto_destroy(m_mosquitto);
  m_mosquitto = nullptr;
  m_isOpen = false;
}

/// Its name is looked up beside the window's thread; the library is given a number, which it need not look
/// up.
void MqttLink::tryNow() {
  if (!m_wanted) return;
  letGo();
  m_lookup =
      QHostInfo::lookupHost(QString::fromStdString(m_broker.path), this, [this](const QHostInfo& host) {
        m_lookup = -1;
        if (m_wanted) connectTo(host);
      });
}

void MqttLink::connectTo(const QHostInfo& host) {
  if (host.addresses().isEmpty()) return lose(host.errorString());
  m_mosquitto = mosquitto_new(nullptr, true, this);
  if (!m_mosquitto) return lose(said(MOSQ_ERR_NOMEM));
  if (!m_user.isEmpty())
    mosquitto_username_pw_set(m_mosquitto, m_user.toUtf8().constData(),
                              m_password.isEmpty() ? nullptr : m_password.toUtf8().constData());
  mosquitto_connect_callback_set(
      m_mosquitto, [](mosquitto*, void* self, int code) { static_cast<MqttLink*>(self)->onConnected(code); });
  mosquitto_message_callback_set(m_mosquitto, [](mosquitto*, void* self, const mosquitto_message* message) {
    emit static_cast<MqttLink*>(self)->messageRead(
        QString::fromUtf8(message->topic),
        QByteArray(static_cast<const char*>(message->payload), message->payloadlen), message->retain);
  });
  const int code =
      mosquitto_connect_async(m_mosquitto, host.addresses().front().toString().toLatin1().constData(),
                              m_broker.tcpPort, keepAliveSeconds);
  if (code != MOSQ_ERR_SUCCESS) return lose(code == MOSQ_ERR_ERRNO ? qt_error_string(errno) : said(code));
  m_misc.start();
  watchSocket();
}

void MqttLink::watchSocket() {
  const int socket = m_mosquitto ? mosquitto_socket(m_mosquitto) : -1;
  if (socket < 0) {
    m_reads.reset();
    m_writes.reset();
    return;
  }
  if (!m_reads || m_reads->socket() != socket) {
    m_reads = std::make_unique<QSocketNotifier>(socket, QSocketNotifier::Read);
    m_writes = std::make_unique<QSocketNotifier>(socket, QSocketNotifier::Write);
    connect(m_reads.get(), &QSocketNotifier::activated, this, [this] { pump(true); });
    connect(m_writes.get(), &QSocketNotifier::activated, this, [this] { pump(false); });
  }
  // Until the broker has answered the socket's becoming writable is what tells that it is there.
  m_writes->setEnabled(!m_isOpen || mosquitto_want_write(m_mosquitto));
}

void MqttLink::pump(bool reads) {
  if (!m_mosquitto) return;
  if (!reads && m_writes) m_writes->setEnabled(false);
  const int code = reads ? mosquitto_loop_read(m_mosquitto, wholePackets)
                         : mosquitto_loop_write(m_mosquitto, wholePackets);
  if (code != MOSQ_ERR_SUCCESS) return lose(code == MOSQ_ERR_ERRNO ? qt_error_string(errno) : said(code));
  if (m_mosquitto && m_writes) m_writes->setEnabled(mosquitto_want_write(m_mosquitto));
}

void MqttLink::onConnected(int code) {
  if (code != 0) {
    const auto why = QString::fromUtf8(mosquitto_connack_string(code));
    // Called from within the library: it may not be taken away here.
    QTimer::singleShot(0, this, [this, why] { lose(why); });
    return;
  }
  m_isOpen = true;
  m_trouble.clear();
  if (!m_filter.isEmpty()) mosquitto_subscribe(m_mosquitto, nullptr, m_filter.toUtf8().constData(), 1);
  emit opened();
}

void MqttLink::lose(const QString& why) {
  letGo();
  m_trouble = why;
  emit lost(why);
  if (m_wanted) m_again.start();
}

bool MqttLink::publish(const QString& topic, const QByteArray& payload, bool retain) {
  if (!m_mosquitto || !m_isOpen) return false;
  const auto name = topic.toUtf8();
  const bool sent =
      mosquitto_publish(m_mosquitto, nullptr, name.constData(), static_cast<int>(payload.size()),
                        payload.constData(), 1, retain) == MOSQ_ERR_SUCCESS;
  watchSocket();
  return sent;
}

} // namespace butte::ports
