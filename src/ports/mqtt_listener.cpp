#include "mqtt_listener.h"

namespace butte::ports {

MqttListener::MqttListener(const devices::StreamAddress& address, const QString& password, QObject* parent)
    : StreamSource(parent), m_link(address.port, QString::fromStdString(address.user), password) {
  m_link.subscribe(QString::fromStdString(address.topic));
  connect(&m_link, &MqttLink::opened, this, [this] { become(State::Open); });
  connect(&m_link, &MqttLink::lost, this, [this](const QString& why) { become(State::Trying, why); });
  connect(&m_link, &MqttLink::messageRead, this, &MqttListener::hear);
}

void MqttListener::open() {
  if (state() != State::Closed) return;
  become(State::Trying);
  m_link.open();
}

void MqttListener::close() {
  m_link.close();
  become(State::Closed);
}

void MqttListener::hear(const QString& topic, const QByteArray& payload, bool retained) {
  constexpr qsizetype mostBytes = 1 << 16, told = 60;
  devices::StreamRow row;
  row.isOld = retained;
  if (payload.size() <= mostBytes) row.samples = jsonSamples(payload);
  if (row.samples.empty()) return emit unread(topic.toUtf8() + ": " + payload.left(told));
  for (auto& sample : row.samples)
    sample.key = topic.toStdString() + (sample.key.empty() ? "" : " " + sample.key);
  emit rowRead(row);
}

} // namespace butte::ports
