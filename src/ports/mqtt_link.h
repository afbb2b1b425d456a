#pragma once
#include "port/port_address.h"

#include <QByteArray>
#include <QObject>
#include <QString>
#include <QTimer>
#include <memory>

class QHostInfo;
class QSocketNotifier;
struct mosquitto;

namespace butte::ports {

/// A line to an MQTT broker (libmosquitto) within this thread's event loop: nothing here waits for the
/// network. Comes back by itself until close().
class MqttLink : public QObject {
  Q_OBJECT

public:
  MqttLink(const devices::PortAddress& broker, const QString& user, const QString& password,
           QObject* parent = nullptr);
  ~MqttLink() override;

  void open();
  void close();
  bool isOpen() const { return m_isOpen; }
  const QString& trouble() const { return m_trouble; }
  /// Again after each coming back.
  void subscribe(const QString& filter) { m_filter = filter; }
  /// False while the broker is not there: then nothing is sent.
  bool publish(const QString& topic, const QByteArray& payload, bool retain = false);

signals:
  void opened();
  void lost(const QString& why);
  /// `retained`: the broker had kept it, who knows since when.
  void messageRead(const QString& topic, const QByteArray& payload, bool retained);

private:
  void tryNow();
  void connectTo(const QHostInfo& host);
  void watchSocket();
  void pump(bool reads);
  void onConnected(int code);
  void lose(const QString& why);
  void letGo();

  devices::PortAddress m_broker;
  QString m_user, m_password, m_filter, m_trouble;
  mosquitto* m_mosquitto = nullptr;
  std::unique_ptr<QSocketNotifier> m_reads, m_writes;
  QTimer m_misc, m_again;
  bool m_wanted = false, m_isOpen = false;
  int m_lookup = -1;
};

} // namespace butte::ports
