#pragma once
#include "services/live_device.h"

#include <QObject>
#include <memory>
#include <vector>

class QSettings;

namespace butte::sim {
class SimPanel;
class SimServer;
} // namespace butte::sim

namespace butte::app {

/// The scales and pens of this bench: kept in the settings, listened to while the program runs.
class DeviceDesk : public QObject {
  Q_OBJECT

public:
  explicit DeviceDesk(QSettings& settings, QObject* parent = nullptr);
  ~DeviceDesk() override;

  const std::vector<DeviceSetting>& kept() const { return m_kept; }
  /// All of them anew, kept and listened to.
  void keep(const std::vector<DeviceSetting>& devices);

  /// As the setting at the same place in kept().
  LiveDevice* live(std::size_t index) const { return index < m_live.size() ? m_live[index].get() : nullptr; }

  /// The scale by this name, else the only one; the stand-in before all while it is there. Nothing without
  /// one.
  LiveDevice* scale(const QString& name) const;
  LiveDevice* pen() const;

  /// Of all of them, from now on.
  void setHaste(double haste);

  QSettings& settings() const { return m_settings; }

  /// A stand-in of scale and pen, with its panel, over the same cables as true ones.
  void startStandIn();
  void stopStandIn();
  sim::SimServer* standIn() const { return m_sim.get(); }
  sim::SimPanel* standInPanel() const { return m_panel.get(); }

signals:
  /// Other devices than before.
  void devicesChanged();
  /// A line, a silence, a cable.
  void changed();

private:
  void listen(const DeviceSetting& setting, std::vector<std::unique_ptr<LiveDevice>>& to);

  QSettings& m_settings;
  double m_haste = 1;
  std::vector<DeviceSetting> m_kept;
  std::vector<std::unique_ptr<LiveDevice>> m_live, m_standIns;
  std::unique_ptr<sim::SimServer> m_sim;
  std::unique_ptr<sim::SimPanel> m_panel;
};

} // namespace butte::app
