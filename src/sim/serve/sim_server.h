#pragma once
#include "model/sim_bench.h"

#include <QElapsedTimer>
#include <QObject>
#include <QTcpServer>
#include <QTemporaryDir>
#include <QTimer>
#include <memory>

class QTcpSocket;

namespace butte::sim {

/// A pseudo-terminal as a cable: what is written goes out at its other end, which a path leads to.
class Cable : public QObject {
  Q_OBJECT

public:
  explicit Cable(const QString& path, QObject* parent = nullptr) : QObject(parent), m_path(path) {}
  ~Cable() override { pullOut(); }

  bool plugIn();
  void pullOut();
  bool isIn() const { return m_end >= 0; }
  void write(const QByteArray& bytes);
  QByteArray read();
  QString path() const { return m_path; }

private:
  QString m_path; ///< a link to the other end, the same for every plugging in
  int m_end = -1;
};

/// The stand-ins on their cables and on the network: lines of the scale 20 times a second, of the pen twice.
class SimServer : public QObject {
  Q_OBJECT

public:
  static constexpr int tickMilliseconds = 50, penEveryTicks = 10;

  explicit SimServer(const ScaleKind& kind = {}, std::uint64_t seed = 1, QObject* parent = nullptr);

  SimBench& bench() { return m_bench; }
  /// On the machine itself alone; 0: any free one. False where it can't be had.
  bool listen(quint16 scalePort = 0, quint16 penPort = 0);
  QString scaleCable() const { return m_scaleCable->path(); }
  QString penCable() const { return m_penCable->path(); }
  quint16 scalePort() const { return m_scaleServer.serverPort(); }
  quint16 penPort() const { return m_penServer.serverPort(); }
  /// So many times as quick as the clock, for trying.
  void setHaste(double haste) { m_haste = haste; }

signals:
  void ticked();

private:
  void tick();
  void plug(bool in);
  void hear(const QByteArray& bytes);
  void send(const std::string& line, Cable& cable, const QTcpServer& server);

  QTemporaryDir m_folder;
  SimBench m_bench;
  std::unique_ptr<Cable> m_scaleCable, m_penCable;
  QTcpServer m_scaleServer, m_penServer;
  QTimer m_timer;
  QElapsedTimer m_clock;
  double m_haste = 1;
  int m_ticks = 0;
  bool m_in = false;
};

} // namespace butte::sim
