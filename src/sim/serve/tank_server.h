#pragma once
#include "model/tank_model.h"
#include "port/port_address.h"

#include <QFile>
#include <QObject>
#include <QTcpServer>
#include <QTimer>
#include <memory>

class QModbusTcpServer;

namespace butte::ports {
class MqttLink;
}

namespace butte::sim {

/// A logger beside the stand-in tank: a CSV that grows, lines over TCP, Modbus registers, MQTT topics,
/// whichever are asked for. On this machine alone, but for the broker.
class TankServer : public QObject {
  Q_OBJECT

public:
  explicit TankServer(const TankKind& kind = {}, std::uint64_t seed = 1, QObject* parent = nullptr);
  ~TankServer() override;

  /// A line each so many seconds of the clock, the tank so many times as quick as it.
  void start(double everySeconds, double haste = 1);
  /// False where it can't be had. `pastDays` are written at once, a row each five minutes, up to now.
  bool writeCsv(const QString& path, double pastDays = 0);
  bool serveLines(quint16 port = 0);
  quint16 linePort() const { return m_lines.serverPort(); }
  /// Holding registers 0 EC in uS/cm, 1 pH by 100, 2 level in L (u16), 3 temperature by 10 (s16), and as f32
  /// from 100 on: EC in mS/cm, pH, litres, degC.
  bool serveModbus(quint16 port);
  /// TOPIC/ec, TOPIC/ph, TOPIC/temperature as bare numbers, TOPIC/tank as JSON {"level": 812.4}.
  void publishTo(const devices::PortAddress& broker, const QString& topic);
  /// What is sent next.
  void sendNow();
  /// The next line breaks off in its middle.
  void breakNext() { m_breaks = true; }
  TankModel& tank() { return m_tank; }

private:
  void writeRow(qint64 atSeconds, const TankFigures& figures);

  TankModel m_tank;
  QTimer m_timer;
  double m_everySeconds = 1, m_haste = 1;
  QFile m_csv;
  QTcpServer m_lines;
  QModbusTcpServer* m_modbus = nullptr;
  std::unique_ptr<ports::MqttLink> m_mqtt;
  QString m_topic;
  bool m_breaks = false;
};

} // namespace butte::sim
