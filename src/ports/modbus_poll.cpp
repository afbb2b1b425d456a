#include "modbus_poll.h"

#include "serial_parity.h"

#include <QModbusRtuSerialClient>
#include <QModbusTcpClient>
#include <QVariant>

namespace butte::ports {

using devices::ModbusRegister;
using devices::PortAddress;

namespace {

constexpr int askAgainMilliseconds = 2000, answerMilliseconds = 1000, retries = 2;

QModbusClient* clientFor(const PortAddress& port, QObject* parent) {
  if (port.kind == PortAddress::Kind::Tcp) {
    auto* client = new QModbusTcpClient(parent);
    client->setConnectionParameter(QModbusDevice::NetworkAddressParameter, QString::fromStdString(port.path));
    client->setConnectionParameter(QModbusDevice::NetworkPortParameter, port.tcpPort);
    return client;
  }
  auto* client = new QModbusRtuSerialClient(parent);
  client->setConnectionParameter(QModbusDevice::SerialPortNameParameter, QString::fromStdString(port.path));
  client->setConnectionParameter(QModbusDevice::SerialBaudRateParameter, port.baud);
  client->setConnectionParameter(QModbusDevice::SerialDataBitsParameter, port.dataBits);
  client->setConnectionParameter(QModbusDevice::SerialParityParameter, parityOf(port.parity));
  client->setConnectionParameter(QModbusDevice::SerialStopBitsParameter, port.stopBits);
  return client;
}

std::vector<std::uint16_t> wordsOf(const QModbusDataUnit& unit) {
  std::vector<std::uint16_t> out;
  for (qsizetype i = 0; i < static_cast<qsizetype>(unit.valueCount()); ++i)
    out.push_back(unit.value(i));
  return out;
}

} // namespace

ModbusPoll::ModbusPoll(const devices::StreamAddress& address, std::vector<ModbusRegister> registers,
                       int pollMilliseconds, QObject* parent)
    : StreamSource(parent), m_address(address), m_registers(std::move(registers)) {
  m_poll.setInterval(pollMilliseconds);
  connect(&m_poll, &QTimer::timeout, this, [this] {
    if (!m_asking) ask(0); // a slow device is not asked twice at once
  });
  m_again.setSingleShot(true);
  m_again.setInterval(askAgainMilliseconds);
  connect(&m_again, &QTimer::timeout, this, &ModbusPoll::tryNow);
}

ModbusPoll::~ModbusPoll() {
  blockSignals(true);
  ModbusPoll::close();
}

void ModbusPoll::open() {
  if (state() != State::Closed) return;
  become(State::Trying);
  tryNow();
}

void ModbusPoll::close() {
  m_poll.stop();
  m_again.stop();
  m_asking = false;
  if (m_client) {
    m_client->disconnect(this);
    m_client->disconnectDevice();
    m_client->deleteLater(); // this may be called from one of its own signals
    m_client = nullptr;
  }
  become(State::Closed);
}

void ModbusPoll::tryNow() {
  if (state() == State::Closed) return;
  m_client = clientFor(m_address.port, this);
  m_client->setTimeout(answerMilliseconds);
  m_client->setNumberOfRetries(retries);
  connect(m_client, &QModbusDevice::stateChanged, this, [this](QModbusDevice::State now) {
    if (now == QModbusDevice::ConnectedState) {
      become(State::Open);
      m_poll.start();
      ask(0);
    } else if (now == QModbusDevice::UnconnectedState) {
      // Why, it says after that.
      QTimer::singleShot(0, this, [this, client = m_client] {
        if (client && client == m_client) lose(client->errorString());
      });
    }
  });
  connect(m_client, &QModbusDevice::errorOccurred, this, [this](QModbusDevice::Error error) {
    if (error == QModbusDevice::ConnectionError && m_client) lose(m_client->errorString());
  });
  if (m_client && !m_client->connectDevice() && m_client) lose(m_client->errorString());
}

void ModbusPoll::lose(const QString& why) {
  close();
  become(State::Trying, why);
  m_again.start();
}

/// One register after the other; what they say together is one row.
void ModbusPoll::ask(std::size_t index) {
  m_asking = false;
  if (!m_client || m_client->state() != QModbusDevice::ConnectedState) return;
  if (index == 0) m_row = {};
  if (index >= m_registers.size()) {
    if (!m_row.samples.empty()) emit rowRead(m_row);
    return;
  }
  const auto& place = m_registers[index];
  const auto table = place.table == ModbusRegister::Table::Input ? QModbusDataUnit::InputRegisters
                                                                 : QModbusDataUnit::HoldingRegisters;
  auto* reply = m_client->sendReadRequest(
      QModbusDataUnit(table, place.address, static_cast<quint16>(place.wordCount())), m_address.modbusUnit);
  if (!reply) {
    emit unread(QByteArray::fromStdString(place.text()) + ": " + m_client->errorString().toUtf8());
    return ask(index + 1);
  }
  m_asking = true;
  if (reply->isFinished()) return hear(reply, index);
  connect(reply, &QModbusReply::finished, this, [this, reply, index] { hear(reply, index); });
}

void ModbusPoll::hear(QModbusReply* reply, std::size_t index) {
  reply->deleteLater();
  const auto& place = m_registers[index];
  const auto value = place.decode(wordsOf(reply->result()));
  if (reply->error() != QModbusDevice::NoError || !value)
    emit unread(QByteArray::fromStdString(place.text()) + ": " + reply->errorString().toUtf8());
  else
    m_row.samples.push_back({place.text(), QString::number(*value, 'g', 9).toStdString(), {}});
  ask(index + 1);
}

} // namespace butte::ports
