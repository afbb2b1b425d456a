#pragma once
#include "device_port.h"
#include "pen/pen_watch.h"
#include "scale/scale_pattern.h"
#include "scale/weigh_watch.h"
#include "services/device_settings.h"

#include <QElapsedTimer>
#include <QObject>
#include <QTimer>
#include <memory>
#include <optional>

namespace butte::app {

/// A device that is listened to. Tells of every line, and when it falls silent.
class LiveDevice : public QObject {
  Q_OBJECT

public:
  explicit LiveDevice(const DeviceSetting& setting, QObject* parent = nullptr);
  const DeviceSetting& setting() const { return m_setting; }
  ports::DevicePort::State state() const;
  /// What the system says while it can't be reached, or what is wrong with the address or the pattern.
  QString trouble() const;
  void send(const QString& text);
  std::int64_t now() const {
    return static_cast<std::int64_t>(static_cast<double>(m_clock.elapsed()) * m_haste);
  }
  /// So many times as quick as the clock, as its stand-in is.
  void setHaste(double haste) { m_haste = haste; }

  // Of a scale.
  devices::WatchNow scaleNow() const { return m_watch.now(now()); }
  devices::WeighWatch& watch() { return m_watch; }
  /// Of a pen.
  devices::PenNow penNow() const { return m_pen.now(now()); }

signals:
  void changed();
  /// As it came, for the tester.
  void lineRead(const QByteArray& line);

private:
  void open();
  void take(const QByteArray& line);
  void goOn();
  QString pathNow() const;

  DeviceSetting m_setting;
  std::unique_ptr<ports::DevicePort> m_port;
  std::optional<devices::ScalePattern> m_pattern;
  QString m_wrong; ///< the address or the pattern can't be
  devices::WeighWatch m_watch;
  devices::PenWatch m_pen;
  QElapsedTimer m_clock;
  double m_haste = 1;
  QTimer m_tick, m_ask;
};

} // namespace butte::app
