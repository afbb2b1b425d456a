#include "device_port.h"

#include "serial_parity.h"

#include <QTcpSocket>

namespace butte::ports {

using devices::PortAddress;

namespace {

constexpr int againMilliseconds = 1000;
/// More than any device sends between two looks; what a broken one pours out beyond is dropped.
constexpr qint64 mostAtOnce = 1 << 16;

} // namespace

DevicePort::DevicePort(PortAddress address, QObject* parent)
    : QObject(parent), m_address(std::move(address)) {
  m_again.setSingleShot(true);
  m_again.setInterval(againMilliseconds);
  connect(&m_again, &QTimer::timeout, this, &DevicePort::tryNow);
}

DevicePort::~DevicePort() {
  blockSignals(true);
  close();
}

QIODevice* DevicePort::device() const {
  return m_serial ? static_cast<QIODevice*>(m_serial) : static_cast<QIODevice*>(m_socket);
}

void DevicePort::open() {
  if (m_state != State::Closed) return;
  setState(State::Trying);
  tryNow();
}

void DevicePort::close() {
  m_again.stop();
  m_lines.clear();
  // Deleted later: this may be called from one of their own signals.
  for (QIODevice* one : {static_cast<QIODevice*>(m_serial), static_cast<QIODevice*>(m_socket)})
    if (one) {
      one->disconnect(this);
      one->close();
      one->deleteLater();
    }
  m_serial = nullptr;
  m_socket = nullptr;
  setState(State::Closed);
}

void DevicePort::tryNow() {
  if (m_state == State::Closed) return;
  if (m_address.kind == PortAddress::Kind::Tcp) return openTcp();
  if (openSerial()) setState(State::Open);
}

bool DevicePort::openSerial() {
  m_serial = new QSerialPort(QString::fromStdString(m_address.path), this);
  m_serial->setBaudRate(m_address.baud);
  m_serial->setDataBits(static_cast<QSerialPort::DataBits>(m_address.dataBits));
  m_serial->setParity(parityOf(m_address.parity));
  m_serial->setStopBits(static_cast<QSerialPort::StopBits>(m_address.stopBits));
  m_serial->setReadBufferSize(mostAtOnce);
  if (!m_serial->open(QIODevice::ReadWrite)) {
    tryLater(m_serial->errorString());
    return false;
  }
  connect(m_serial, &QIODevice::readyRead, this, &DevicePort::takeBytes);
  // Once gone it complains without end: the first word is enough.
  connect(m_serial, &QSerialPort::errorOccurred, this, [this](QSerialPort::SerialPortError error) {
    if (error != QSerialPort::NoError && m_serial) tryLater(m_serial->errorString());
  });
  return true;
}

void DevicePort::openTcp() {
  m_socket = new QTcpSocket(this);
  m_socket->setReadBufferSize(mostAtOnce);
  connect(m_socket, &QTcpSocket::connected, this, [this] { setState(State::Open); });
  connect(m_socket, &QIODevice::readyRead, this, &DevicePort::takeBytes);
  connect(m_socket, &QTcpSocket::errorOccurred, this, [this] {
    if (m_socket) tryLater(m_socket->errorString());
  });
  m_socket->connectToHost(QString::fromStdString(m_address.path), static_cast<quint16>(m_address.tcpPort));
}

void DevicePort::tryLater(const QString& why) {
  close();
  m_trouble = why;
  setState(State::Trying);
  m_again.start();
}

void DevicePort::setState(State state) {
  if (state == State::Open) m_trouble.clear();
  if (state == m_state) return;
  m_state = state;
  emit stateChanged();
}

void DevicePort::takeBytes() {
  auto* from = device();
  if (!from) return;
  const auto bytes = from->read(mostAtOnce);
  for (const auto& line : m_lines.take({bytes.constData(), static_cast<std::size_t>(bytes.size())}))
    emit lineRead(QByteArray::fromStdString(line));
}

void DevicePort::send(const QByteArray& bytes) {
  if (m_state == State::Open && device()) device()->write(bytes);
}

} // namespace butte::ports
