#include "services/live_device.h"

#include "attached_devices.h"
#include "wording/record_words.h"

namespace butte::app {

using ports::DevicePort;

namespace {
constexpr int tickMilliseconds = 250, askMilliseconds = 250;

/// "\r" and "\n" as they are typed in a field.
QByteArray meant(QString text) {
  return text.replace("\\r", "\r").replace("\\n", "\n").toLatin1();
}
} // namespace

LiveDevice::LiveDevice(const DeviceSetting& setting, QObject* parent) : QObject(parent), m_setting(setting) {
  m_clock.start();
  m_tick.setInterval(tickMilliseconds);
  connect(&m_tick, &QTimer::timeout, this, &LiveDevice::goOn);
  m_tick.start();
  m_ask.setInterval(askMilliseconds);
  connect(&m_ask, &QTimer::timeout, this, [this] { send(m_setting.ask); });
  open();
}

/// Where it hangs now: a plug with a serial number may have another path than yesterday.
QString LiveDevice::pathNow() const {
  if (m_setting.serial.isEmpty()) return m_setting.address;
  for (const auto& device : ports::attachedDevices())
    if (device.serial == m_setting.serial) {
      const auto parts = m_setting.address.section(',', 1);
      return "serial:" + device.path + (parts.isEmpty() ? QString() : "," + parts);
    }
  return m_setting.address;
}

void LiveDevice::open() {
  const auto address = devices::PortAddress::parse(pathNow().trimmed().toStdString());
  if (!address) {
    m_wrong = problemWords(address.problem());
    return;
  }
  if (!m_setting.pattern.trimmed().isEmpty()) {
    auto pattern = devices::ScalePattern::parse(m_setting.pattern.trimmed().toStdString());
    if (!pattern) {
      m_wrong = problemWords(pattern.problem());
      return;
    }
    m_pattern = std::move(pattern).value();
  }
  m_port = std::make_unique<DevicePort>(*address);
  connect(m_port.get(), &DevicePort::lineRead, this, &LiveDevice::take);
  connect(m_port.get(), &DevicePort::stateChanged, this, [this] {
    if (m_port->state() != DevicePort::State::Open) {
      m_watch.lost();
      m_pen.lost();
    }
    emit changed();
  });
  m_port->open();
  if (!m_setting.ask.isEmpty()) m_ask.start();
}

DevicePort::State LiveDevice::state() const {
  return m_port ? m_port->state() : DevicePort::State::Closed;
}

QString LiveDevice::trouble() const {
  return m_port ? m_port->trouble() : m_wrong;
}

void LiveDevice::send(const QString& text) {
  if (m_port && !text.isEmpty()) m_port->send(meant(text));
}

void LiveDevice::take(const QByteArray& line) {
  const std::string_view text(line.constData(), static_cast<std::size_t>(line.size()));
  if (m_setting.kind == DeviceSetting::Kind::Pen)
    m_pen.take(devices::readPenLine(text), now());
  else
    m_watch.take(m_pattern ? m_pattern->read(text) : devices::readScaleLine(text), now());
  emit lineRead(line);
  emit changed();
}

/// Silence has no line that could tell of it.
void LiveDevice::goOn() {
  const bool waits = m_port && m_port->state() == DevicePort::State::Trying;
  if (waits && !m_setting.serial.isEmpty() &&
      devices::PortAddress::parse(pathNow().toStdString()).value() != m_port->address()) {
    m_port.reset(); // plugged in again, elsewhere
    open();
  }
  emit changed();
}

} // namespace butte::app
