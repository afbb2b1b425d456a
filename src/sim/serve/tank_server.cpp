#include "serve/tank_server.h"

#include "mqtt_link.h"
#include "stream/modbus_register.h"

#include <QDateTime>
#include <QHostAddress>
#include <QModbusTcpServer>
#include <QTcpSocket>

namespace butte::sim {

namespace {
constexpr int firstFloat = 100, registerCount = 110, inMicro = 1000, inHundredths = 100, inTenths = 10;
constexpr int unitNumber = 1;

QByteArray number(double value, int decimals) {
  return QByteArray::number(value, 'f', decimals);
}
} // namespace

TankServer::TankServer(const TankKind& kind, std::uint64_t seed, QObject* parent)
    : QObject(parent), m_tank(kind, seed) {
  connect(&m_timer, &QTimer::timeout, this, [this] {
    m_tank.advance(m_everySeconds * m_haste);
    sendNow();
  });
  connect(&m_lines, &QTcpServer::newConnection, this, [this] {
    while (auto* socket = m_lines.nextPendingConnection())
      connect(socket, &QTcpSocket::disconnected, socket, &QObject::deleteLater);
  });
}

TankServer::~TankServer() = default;

void TankServer::start(double everySeconds, double haste) {
  constexpr double thousand = 1000;
  m_everySeconds = everySeconds;
  m_haste = haste;
  m_timer.start(static_cast<int>(everySeconds * thousand));
}

bool TankServer::writeCsv(const QString& path, double pastDays) {
  m_csv.setFileName(path);
  if (!m_csv.open(QIODevice::WriteOnly | QIODevice::Truncate)) return false;
  m_csv.write("time,EC (mS/cm),pH,level (L),temperature (C)\n");
  constexpr int rowSeconds = 300, secondsPerDay = 86400;
  const auto now = QDateTime::currentSecsSinceEpoch();
  for (auto at = now - static_cast<qint64>(pastDays * secondsPerDay); at < now; at += rowSeconds) {
    writeRow(at, m_tank.read());
    m_tank.advance(rowSeconds);
  }
  m_csv.flush();
  return true;
}

void TankServer::writeRow(qint64 atSeconds, const TankFigures& figures) {
  auto row = QDateTime::fromSecsSinceEpoch(atSeconds).toString("yyyy-MM-dd HH:mm:ss").toLatin1() + "," +
             number(figures.msPerCm, 3) + "," + number(figures.ph, 2) + "," + number(figures.litres, 1) +
             "," + number(figures.celsius, 1) + "\n";
  if (std::exchange(m_breaks, false)) row = row.left(row.size() / 2) + "\n";
  m_csv.write(row);
}

bool TankServer::serveLines(quint16 port) {
  return m_lines.listen(QHostAddress::LocalHost, port);
}

bool TankServer::serveModbus(quint16 port) {
  m_modbus = new QModbusTcpServer(this);
  m_modbus->setServerAddress(unitNumber);
  m_modbus->setMap(
      {{QModbusDataUnit::HoldingRegisters, {QModbusDataUnit::HoldingRegisters, 0, registerCount}},
       {QModbusDataUnit::InputRegisters, {QModbusDataUnit::InputRegisters, 0, registerCount}}});
  m_modbus->setConnectionParameter(QModbusDevice::NetworkAddressParameter, "127.0.0.1");
  m_modbus->setConnectionParameter(QModbusDevice::NetworkPortParameter, port);
  return m_modbus->connectDevice();
}

void TankServer::publishTo(const devices::PortAddress& broker, const QString& topic) {
  m_topic = topic;
  m_mqtt = std::make_unique<ports::MqttLink>(broker, QString(), QString());
  m_mqtt->open();
}

void TankServer::sendNow() {
  const auto figures = m_tank.read();
  if (m_csv.isOpen()) {
    writeRow(QDateTime::currentSecsSinceEpoch(), figures);
    m_csv.flush();
  }
  auto line = "EC=" + number(figures.msPerCm, 3) + " mS/cm;pH=" + number(figures.ph, 2) +
              ";level=" + number(figures.litres, 1) + " L;temperature=" + number(figures.celsius, 1) + " C";
  if (std::exchange(m_breaks, false)) line = line.left(line.size() / 2) + "#";
  for (auto* socket : m_lines.findChildren<QTcpSocket*>())
    socket->write(line + "\r\n");
  if (m_modbus) {
    using devices::ModbusRegister;
    const auto put = [this](int address, ModbusRegister::Type type, double value) {
      const ModbusRegister place{ModbusRegister::Table::Holding, address, type, false};
      for (const auto word : place.encode(value))
        m_modbus->setData(QModbusDataUnit::HoldingRegisters, static_cast<quint16>(address++), word);
    };
    using enum ModbusRegister::Type;
    put(0, U16, figures.msPerCm * inMicro);
    put(1, U16, figures.ph * inHundredths);
    put(2, U16, figures.litres);
    put(3, S16, figures.celsius * inTenths);
    int at = firstFloat;
    for (const double value : {figures.msPerCm, figures.ph, figures.litres, figures.celsius}) {
      put(at, F32, value);
      at += 2;
    }
  }
  if (!m_mqtt) return;
  m_mqtt->publish(m_topic + "/ec", number(figures.msPerCm, 3));
  m_mqtt->publish(m_topic + "/ph", number(figures.ph, 2));
  m_mqtt->publish(m_topic + "/temperature", number(figures.celsius, 1) + " C");
  m_mqtt->publish(m_topic + "/tank", "{\"level\": " + number(figures.litres, 1) + "}");
}

} // namespace butte::sim
