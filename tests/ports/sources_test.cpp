// Loggers over files, lines and Modbus: heard, lost, and back again.
#include "heard.h"
#include "serve/sim_server.h"
#include "serve/tank_server.h"

#include <QFile>
#include <QProcess>
#include <QTcpServer>
#include <QTcpSocket>
#include <QTemporaryDir>
#include <QTimer>
#include <gmock/gmock.h>
#include <gtest/gtest.h>
#include <sys/stat.h>

namespace butte::ports {
namespace {

using testing::ElementsAre;
using testing::HasSubstr;
using testing::IsEmpty;
using State = StreamSource::State;

class FileTailTest : public testing::Test {
protected:
  void append(const char* text, const char* name = "log.csv") {
    QFile file(folder.filePath(name));
    ASSERT_TRUE(file.open(QIODevice::Append));
    file.write(text);
  }
  QString address() const { return "file:" + folder.filePath("log.csv"); }
  QTemporaryDir folder;
  StreamWish quick{devices::DateOrder::DayFirst, {}, 100, 20, {}};
};

TEST_F(FileTailTest, IsReadFromItsBeginningAndAsItGrows) {
  append("time,ec\n2026-03-04 07:15,1.62\n");
  Heard heard(address(), quick);
  ASSERT_TRUE(heard.hasRows(1));
  append("2026-03-04 07:16,1.6");
  QTest::qWait(80);
  EXPECT_EQ(heard.rows.size(), 1U) << "half a line is none";
  append("3\n");
  ASSERT_TRUE(heard.hasRows(2));
  EXPECT_EQ(heard.last("ec"), "1.63");
  EXPECT_THAT(heard.unread, IsEmpty());
}

TEST_F(FileTailTest, AnotherFileUnderItsNameBeginsAnew) {
  append("time,ec\n2026-03-04 07:15,1.62\n");
  Heard heard(address(), quick);
  ASSERT_TRUE(heard.hasRows(1));
  QFile::remove(folder.filePath("log.csv"));
  ASSERT_TRUE(heard.becomes(State::Trying));
  EXPECT_FALSE(heard.source->trouble().isEmpty());
  append("time,ph\n2026-03-05 07:15,5.9\n");
  ASSERT_TRUE(heard.hasRows(2));
  EXPECT_EQ(heard.last("ph"), "5.9");
  // Emptied in its place, as some loggers do at midnight.
  QFile(folder.filePath("log.csv")).resize(0);
  QTest::qWait(80);
  append("time,ph\n2026-03-06 07:15,6.1\n");
  ASSERT_TRUE(heard.hasRows(3));
  EXPECT_EQ(heard.last("ph"), "6.1");
}

TEST_F(FileTailTest, APipeOrAFolderIsRefusedWithoutWaiting) {
  ASSERT_EQ(::mkfifo(folder.filePath("pipe").toLocal8Bit().constData(), 0600), 0);
  for (const auto* name : {"/pipe", ""}) {
    Heard heard("file:" + folder.path() + name, quick);
    EXPECT_TRUE(QTest::qWaitFor([&] { return !heard.source->trouble().isEmpty(); }, 2000)) << name;
    EXPECT_EQ(heard.source->state(), State::Trying);
  }
}

TEST_F(FileTailTest, AYearOfMinutesIsReadWithoutHoldingTheWindow) {
  {
    QFile file(folder.filePath("log.csv"));
    ASSERT_TRUE(file.open(QIODevice::WriteOnly));
    file.write("timestamp,ec,ph\n");
    for (int i = 0; i < 50000; ++i)
      file.write(QByteArray::number(1772608500 + 60 * i) + ",1.62,5.9\n");
  }
  Heard heard(address(), quick);
  ASSERT_TRUE(heard.hasRows(50000, 30000));
  EXPECT_EQ(std::get<std::int64_t>(heard.rows.back().at), 1772608500 + 60 * 49999LL);
}

TEST(LineStreams, AreHeardOverTcpLostAndBackAgain) {
  auto server = std::make_unique<QTcpServer>();
  ASSERT_TRUE(server->listen(QHostAddress::LocalHost));
  const auto port = server->serverPort();
  Heard heard(QString("tcp:127.0.0.1:%1").arg(port));
  ASSERT_TRUE(QTest::qWaitFor([&] { return server->hasPendingConnections(); }, 5000));
  auto* socket = server->nextPendingConnection();
  socket->write("EC=1.62 mS/cm;pH=5.9\r\n{\"tank\": {\"level\": 412, \"state\": \"ok\"}}\nERR 17\n");
  ASSERT_TRUE(heard.hasRows(2));
  EXPECT_EQ(heard.last("EC"), "1.62");
  EXPECT_EQ(heard.last("tank.level"), "412");
  ASSERT_TRUE(QTest::qWaitFor([&] { return !heard.unread.empty(); }, 2000));
  EXPECT_THAT(heard.unread, ElementsAre("ERR 17")) << "said, not dropped";
  server.reset();
  ASSERT_TRUE(heard.becomes(State::Trying));
  QTcpServer again;
  ASSERT_TRUE(again.listen(QHostAddress::LocalHost, port));
  ASSERT_TRUE(QTest::qWaitFor([&] { return again.hasPendingConnections(); }, 5000));
  again.nextPendingConnection()->write("EC=1.70\n");
  ASSERT_TRUE(heard.hasRows(3));
}

TEST(LineStreams, AreHeardOverACable) {
  QTemporaryDir folder;
  sim::Cable cable(folder.filePath("logger"));
  ASSERT_TRUE(cable.plugIn());
  Heard heard("serial:" + cable.path() + ",9600,8N1");
  ASSERT_TRUE(heard.becomes(State::Open));
  cable.write("1,62;5,9\r\n");
  ASSERT_TRUE(heard.hasRows(1));
  EXPECT_EQ(heard.last("#1"), "1.62");
}

TEST(JsonSamples, AreNumbersByTheirKeys) {
  const auto found =
      jsonSamples(R"({"ec": 1.62, "inner": {"ph": "5.9"}, "list": [1, true, null], "name": "x"})");
  ASSERT_EQ(found.size(), 3U);
  EXPECT_EQ(found[0], (devices::StreamSample{"ec", "1.62", ""}));
  EXPECT_EQ(found[1].key, "inner.ph");
  EXPECT_EQ(found[2].key, "list[0]");
  EXPECT_EQ(jsonSamples(" 21.4 C ")[0], (devices::StreamSample{"", "21.4", "C"}));
  for (const char* text : {"", "{", "[1]", "true", "\"5.9 7\"", "{\"a\": {}}", "1.2.3"})
    EXPECT_THAT(jsonSamples(text), IsEmpty()) << text;
  const QByteArray deep = QByteArray("{\"a\":").repeated(500) + "1" + QByteArray("}").repeated(500);
  EXPECT_THAT(jsonSamples(deep), IsEmpty());
}

quint16 freePort() {
  QTcpServer probe;
  probe.listen(QHostAddress::LocalHost);
  return probe.serverPort();
}

StreamWish registers(std::initializer_list<const char*> places) {
  StreamWish wish{devices::DateOrder::DayFirst, {}, 100, 20, {}};
  for (const auto* place : places)
    wish.registers.push_back(devices::ModbusRegister::parse(place).value());
  return wish;
}

TEST(Modbus, ADevicesRegistersAreAskedForAgainAndAgain) {
  sim::TankServer server;
  const auto port = freePort();
  ASSERT_TRUE(server.serveModbus(port));
  server.start(0.1);
  Heard heard(QString("modbus:tcp:127.0.0.1:%1 unit 1").arg(port),
              registers({"holding 0", "holding 3 s16", "holding 100 f32", "holding 4000"}));
  ASSERT_TRUE(heard.hasRows(3));
  const double ec = std::stod(heard.last("holding 100 f32"));
  EXPECT_NEAR(ec, server.tank().truth().msPerCm, 0.05 * ec);
  EXPECT_NEAR(std::stod(heard.last("holding 0 u16")), 1000 * ec, 50 * ec);
  EXPECT_NEAR(std::stod(heard.last("holding 3 s16")), 205, 20);
  ASSERT_FALSE(heard.unread.empty()) << "a register that the device has not";
  EXPECT_THAT(heard.unread.front(), HasSubstr("holding 4000 u16"));
}

TEST(Modbus, ADeviceThatGoesComesBack) {
  const auto port = freePort();
  auto server = std::make_unique<sim::TankServer>();
  Heard heard(QString("modbus:tcp:127.0.0.1:%1").arg(port), registers({"holding 100 f32"}));
  QTest::qWait(100);
  EXPECT_EQ(heard.source->state(), State::Trying);
  EXPECT_FALSE(heard.source->trouble().isEmpty());
  ASSERT_TRUE(server->serveModbus(port));
  server->sendNow();
  ASSERT_TRUE(heard.hasRows(2, 8000));
  server.reset();
  ASSERT_TRUE(heard.becomes(State::Trying));
  const auto before = heard.rows.size();
  server = std::make_unique<sim::TankServer>();
  ASSERT_TRUE(server->serveModbus(port));
  ASSERT_TRUE(heard.hasRows(before + 2, 8000));
}

/// The check of a frame on a serial line (Modbus over Serial Line V1.02, from memory; pymodbus' test vector
/// 01 03 00 00 00 01 ends with 84 0A).
QByteArray withCheck(QByteArray frame) {
  quint16 check = 0xFFFF;
  for (const char byte : frame) {
    check ^= static_cast<quint8>(byte);
    for (int bit = 0; bit < 8; ++bit)
      check = check & 1 ? (check >> 1) ^ 0xA001 : check >> 1;
  }
  return frame + static_cast<char>(check & 0xFF) + static_cast<char>(check >> 8);
}

TEST(Modbus, ADeviceOnASerialLineIsAskedByItsNumber) {
  ASSERT_EQ(withCheck(QByteArray::fromHex("010300000001")).right(2).toHex(), "840a");
  QTemporaryDir folder;
  sim::Cable cable(folder.filePath("plc"));
  ASSERT_TRUE(cable.plugIn());
  Heard heard("modbus:serial:" + cable.path() + ",19200,8E1 unit 17", registers({"holding 100 f32"}));
  QByteArray asked;
  QTimer device;
  QObject::connect(&device, &QTimer::timeout, &device, [&] {
    asked += cable.read();
    constexpr int requestBytes = 8;
    if (asked.size() < requestBytes) return;
    // 1.625 as IEEE 754 is 3FD00000.
    if (asked == withCheck(QByteArray::fromHex("110300640002")))
      cable.write(withCheck(QByteArray::fromHex("1103043fd00000")));
    asked.clear();
  });
  device.start(5);
  ASSERT_TRUE(heard.hasRows(2, 8000)) << heard.source->trouble().toStdString() << asked.toHex().toStdString();
  EXPECT_EQ(heard.last("holding 100 f32"), "1.625");
}

TEST(ButteSim, TellsWhereItsLoggerIs) {
  QTemporaryDir folder;
  QProcess sim;
  const auto port = freePort();
  sim.start(BUTTE_SIM, {"--seconds", "20", "tank", "--csv", folder.filePath("pond.csv"), "--past", "2",
                        "--lines-port", "0", "--modbus-port", QString::number(port), "--every", "0.2"});
  ASSERT_TRUE(sim.waitForStarted());
  QByteArray said;
  ASSERT_TRUE(
      QTest::qWaitFor([&] { return (said += sim.readAllStandardOutput()).contains("modbus:"); }, 10000));
  const auto lines = QString::fromUtf8(said).split('\n', Qt::SkipEmptyParts);
  ASSERT_EQ(lines.size(), 3);
  for (const auto& line : lines) {
    Heard heard(line, registers({"holding 0"}));
    EXPECT_TRUE(heard.hasRows(line.startsWith("file:") ? 500 : 1)) << line.toStdString();
  }
  sim.kill();
  sim.waitForFinished();
}

} // namespace
} // namespace butte::ports
