#pragma once
#include "mqtt_link.h"
#include "stream_source.h"

namespace butte::ports {

/// What is published under a broker's topics. A figure is known by its topic, one inside JSON by the topic
/// and its key ("glass/pond tank.ec").
class MqttListener : public StreamSource {
  Q_OBJECT

public:
  MqttListener(const devices::StreamAddress& address, const QString& password, QObject* parent = nullptr);
  void open() override;
  void close() override;

private:
  void hear(const QString& topic, const QByteArray& payload, bool retained);
  MqttLink m_link;
};

} // namespace butte::ports
