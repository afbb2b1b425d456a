#pragma once
#include "port/line_buffer.h"
#include "port/port_address.h"

#include <QByteArray>
#include <QObject>
#include <QTimer>

class QIODevice;
class QSerialPort;
class QTcpSocket;

namespace butte::ports {

/// A device on a cable or on the network, as lines. Once opened it comes back by itself: a lost one is tried
/// again every second until close().
class DevicePort : public QObject {
  Q_OBJECT

public:
  enum class State { Closed, Trying, Open };

  explicit DevicePort(devices::PortAddress address, QObject* parent = nullptr);
  ~DevicePort() override;

  void open();
  void close();
  /// As it is, without a line's end of ours; dropped while the device is not there.
  void send(const QByteArray& bytes);

  State state() const { return m_state; }
  const devices::PortAddress& address() const { return m_address; }
  /// What the system said when it was last tried in vain; empty while open.
  QString trouble() const { return m_trouble; }

signals:
  void lineRead(const QByteArray& line);
  void stateChanged();

private:
  void tryNow();
  void tryLater(const QString& why);
  void takeBytes();
  void setState(State state);
  bool openSerial();
  void openTcp();
  QIODevice* device() const;

  devices::PortAddress m_address;
  State m_state = State::Closed;
  QString m_trouble;
  devices::LineBuffer m_lines;
  QSerialPort* m_serial = nullptr;
  QTcpSocket* m_socket = nullptr;
  QTimer m_again;
};

} // namespace butte::ports
