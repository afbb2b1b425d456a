#include "serve/sim_server.h"

#include <QFile>
#include <QHostAddress>
#include <QTcpSocket>
#include <cstdlib>
#include <fcntl.h>
#include <termios.h>
#include <unistd.h>

namespace butte::sim {

bool Cable::plugIn() {
  if (isIn()) return true;
  m_end = ::posix_openpt(O_RDWR | O_NOCTTY | O_NONBLOCK | O_CLOEXEC);
  if (m_end < 0) return false;
  char other[128];
  if (::grantpt(m_end) != 0 || ::unlockpt(m_end) != 0 || ::ptsname_r(m_end, other, sizeof other) != 0) {
    pullOut();
    return false;
  }
  termios settings{};
  if (::tcgetattr(m_end, &settings) == 0) { // as it is: nothing echoed, nothing turned into other signs
    ::cfmakeraw(&settings);
    ::tcsetattr(m_end, TCSANOW, &settings);
  }
  QFile::remove(m_path);
  return QFile::link(other, m_path);
}

void Cable::pullOut() {
  QFile::remove(m_path);
  if (m_end >= 0) ::close(m_end);
  m_end = -1;
}

/// What does not fit, because nobody reads at the other end, is lost, as on a cable.
void Cable::write(const QByteArray& bytes) {
  if (m_end < 0) return;
  if (::write(m_end, bytes.constData(), static_cast<std::size_t>(bytes.size())) < 0)
    ::tcflush(m_end, TCIOFLUSH);
}

QByteArray Cable::read() {
  char bytes[256];
  const auto count = m_end < 0 ? 0 : ::read(m_end, bytes, sizeof bytes);
  return count > 0 ? QByteArray(bytes, static_cast<qsizetype>(count)) : QByteArray();
}

SimServer::SimServer(const ScaleKind& kind, std::uint64_t seed, QObject* parent)
    : QObject(parent), m_bench(kind, seed), m_scaleCable(std::make_unique<Cable>(m_folder.filePath("scale"))),
      m_penCable(std::make_unique<Cable>(m_folder.filePath("pen"))) {
  plug(true);
  for (auto* server : {&m_scaleServer, &m_penServer})
    connect(server, &QTcpServer::newConnection, this, [this, server] {
      while (auto* socket = server->nextPendingConnection()) {
        connect(socket, &QTcpSocket::readyRead, this, [this, socket] { hear(socket->readAll()); });
        connect(socket, &QTcpSocket::disconnected, socket, &QObject::deleteLater);
        if (!m_in) socket->abort();
      }
    });
  m_timer.setInterval(tickMilliseconds);
  m_timer.setTimerType(Qt::PreciseTimer);
  connect(&m_timer, &QTimer::timeout, this, &SimServer::tick);
  m_timer.start();
  m_clock.start();
}

bool SimServer::listen(quint16 scalePort, quint16 penPort) {
  return m_scaleServer.listen(QHostAddress::LocalHost, scalePort) &&
         m_penServer.listen(QHostAddress::LocalHost, penPort);
}

void SimServer::plug(bool in) {
  if (in == m_in) return;
  m_in = in;
  for (auto* cable : {m_scaleCable.get(), m_penCable.get()})
    in ? static_cast<void>(cable->plugIn()) : cable->pullOut();
  if (in) return;
  for (auto* server : {&m_scaleServer, &m_penServer})
    for (auto* socket : server->findChildren<QTcpSocket*>())
      socket->abort();
}

/// "T" tares, as serial scales commonly take it.
void SimServer::hear(const QByteArray& bytes) {
  if (bytes.contains('T')) m_bench.scale.tare();
}

void SimServer::tick() {
  constexpr double mostSeconds = 0.5, thousand = 1000; // after a machine's sleep not all at once
  const double seconds = std::min(mostSeconds, static_cast<double>(m_clock.restart()) / thousand);
  m_bench.advance(seconds * m_haste);
  plug(!m_bench.isUnplugged());
  hear(m_scaleCable->read());
  send(m_bench.scale.line(), *m_scaleCable, m_scaleServer);
  if (++m_ticks % penEveryTicks == 0) send(m_bench.pen.line(), *m_penCable, m_penServer);
  emit ticked();
}

void SimServer::send(const std::string& line, Cable& cable, const QTcpServer& server) {
  if (!m_in) return;
  const auto bytes = QByteArray::fromStdString(line) + "\r\n";
  cable.write(bytes);
  for (auto* socket : server.findChildren<QTcpSocket*>())
    socket->write(bytes);
}

} // namespace butte::sim
