#pragma once
#include "device_port.h"
#include "stream_source.h"

namespace butte::ports {

/// Lines over a cable or the network: words with their figures, JSON, figures by place (line_samples.h).
class LineStream : public StreamSource {
  Q_OBJECT

public:
  explicit LineStream(const devices::PortAddress& address, QObject* parent = nullptr);
  void open() override { m_port.open(); }
  void close() override { m_port.close(); }

private:
  DevicePort m_port;
};

} // namespace butte::ports
