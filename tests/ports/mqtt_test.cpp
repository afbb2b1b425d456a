// A broker (mosquitto) under way: heard, gone, back; a wrong password.
#include "heard.h"
#include "mqtt_link.h"
#include "serve/tank_server.h"

#include <QFile>
#include <QHostAddress>
#include <QProcess>
#include <QTcpServer>
#include <QTemporaryDir>
#include <gmock/gmock.h>
#include <gtest/gtest.h>

namespace butte::ports {
namespace {

using testing::HasSubstr;
using State = StreamSource::State;

class MqttTest : public testing::Test {
protected:
  void SetUp() override {
    QTcpServer probe;
    probe.listen(QHostAddress::LocalHost);
    port = probe.serverPort();
    configure("allow_anonymous true\n");
  }
  void configure(const QByteArray& more) {
    QFile file(folder.filePath("broker.conf"));
    ASSERT_TRUE(file.open(QIODevice::WriteOnly));
    // Where the tests run as root the broker would become another user, who may not read this.
    file.write("listener " + QByteArray::number(port) + " 127.0.0.1\nuser root\npersistence false\n" + more);
  }
  void startBroker() {
    broker.start(BUTTE_MOSQUITTO, {"-c", folder.filePath("broker.conf")});
    ASSERT_TRUE(broker.waitForStarted());
  }
  void stopBroker() {
    broker.kill();
    broker.waitForFinished();
  }
  void TearDown() override { stopBroker(); }
  QString address(const QString& topic, const QString& user = {}) const {
    return "mqtt:" + user + "127.0.0.1:" + QString::number(port) + "/" + topic;
  }
  void publishFrom(sim::TankServer& server) {
    server.publishTo(addressOf(address("glass/pond")).port, "glass/pond");
    server.start(0.1);
  }

  QTemporaryDir folder;
  QProcess broker;
  quint16 port = 0;
};

TEST_F(MqttTest, EveryTopicBelowIsHeard) {
  startBroker();
  Heard heard(address("glass/#"));
  ASSERT_TRUE(heard.becomes(State::Open, 10000)) << heard.source->trouble().toStdString();
  sim::TankServer server;
  publishFrom(server);
  ASSERT_TRUE(QTest::qWaitFor([&] { return !heard.last("glass/pond/tank level").empty(); }, 10000));
  EXPECT_NEAR(std::stod(heard.last("glass/pond/ec")), server.tank().truth().msPerCm, 0.2);
  EXPECT_NEAR(std::stod(heard.last("glass/pond/tank level")), 1000, 20);
  MqttLink other(addressOf(address("#")).port, {}, {});
  other.open();
  ASSERT_TRUE(QTest::qWaitFor([&] { return other.isOpen(); }, 5000));
  ASSERT_TRUE(other.publish("glass/pond/note", "all is well"));
  ASSERT_TRUE(QTest::qWaitFor([&] { return !heard.unread.empty(); }, 5000));
  EXPECT_THAT(heard.unread.front(), HasSubstr("glass/pond/note"));
}

TEST_F(MqttTest, ABrokerThatGoesComesBack) {
  Heard heard(address("glass/#"));
  ASSERT_TRUE(QTest::qWaitFor([&] { return !heard.source->trouble().isEmpty(); }, 5000))
      << "nobody is there yet";
  startBroker();
  ASSERT_TRUE(heard.becomes(State::Open, 10000));
  sim::TankServer server;
  publishFrom(server);
  ASSERT_TRUE(heard.hasRows(4, 10000));
  stopBroker();
  ASSERT_TRUE(heard.becomes(State::Trying, 10000));
  const auto before = heard.rows.size();
  startBroker();
  ASSERT_TRUE(heard.hasRows(before + 4, 20000)) << "listened to again, and published again";
}

TEST_F(MqttTest, AStrangerIsTurnedAwayInWords) {
  configure("allow_anonymous false\n");
  startBroker();
  Heard heard(address("glass/#", "anna@"));
  ASSERT_TRUE(QTest::qWaitFor(
      [&] {
        return heard.source->trouble().contains("refused: not auth", Qt::CaseInsensitive) ||
               heard.source->trouble().contains("not authori", Qt::CaseInsensitive);
      },
      10000))
      << heard.source->trouble().toStdString();
  EXPECT_EQ(heard.source->state(), State::Trying);
}

TEST_F(MqttTest, WhatTheBrokerHadKeptIsShownAsOld) {
  startBroker();
  MqttLink other(addressOf(address("#")).port, {}, {});
  other.open();
  ASSERT_TRUE(QTest::qWaitFor([&] { return other.isOpen(); }, 8000));
  ASSERT_TRUE(other.publish("glass/pond/ec", "1.62", true));
  QTest::qWait(200);
  Heard heard(address("glass/#"));
  ASSERT_TRUE(heard.hasRows(1, 10000));
  EXPECT_TRUE(heard.rows.front().isOld) << "nobody knows since when it stands";
  ASSERT_TRUE(other.publish("glass/pond/ec", "1.63"));
  ASSERT_TRUE(heard.hasRows(2, 10000));
  EXPECT_FALSE(heard.rows.back().isOld);
}

TEST_F(MqttTest, ClosingWhileItIsTriedLeavesNothingBehind) {
  for (int i = 0; i < 20; ++i) {
    Heard heard(address("glass/#"));
    QTest::qWait(i * 5);
    heard.source->close();
  }
  startBroker();
  for (int i = 0; i < 20; ++i) {
    Heard heard(address("glass/#"));
    QTest::qWait(i * 5);
  }
}

} // namespace
} // namespace butte::ports
