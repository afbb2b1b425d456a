#include "line_stream.h"

#include "stream/line_samples.h"

namespace butte::ports {

LineStream::LineStream(const devices::PortAddress& address, QObject* parent)
    : StreamSource(parent), m_port(address) {
  connect(&m_port, &DevicePort::stateChanged, this, [this] {
    const auto state = m_port.state();
    become(state == DevicePort::State::Open     ? State::Open
           : state == DevicePort::State::Trying ? State::Trying
                                                : State::Closed,
           m_port.trouble());
  });
  connect(&m_port, &DevicePort::lineRead, this, [this](const QByteArray& line) {
    devices::StreamRow row;
    row.samples = line.trimmed().startsWith('{')
                      ? jsonSamples(line)
                      : devices::lineSamples({line.constData(), static_cast<std::size_t>(line.size())});
    if (row.samples.empty())
      emit unread(line);
    else
      emit rowRead(row);
  });
}

} // namespace butte::ports
