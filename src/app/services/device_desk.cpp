#include "services/device_desk.h"

#include "panel/sim_panel.h"
#include "serve/sim_server.h"
#include "wording/tr.h"

#include <QSettings>

namespace butte::app {

DeviceDesk::DeviceDesk(QSettings& settings, QObject* parent)
    : QObject(parent), m_settings(settings), m_kept(keptDevices(settings)) {
  for (const auto& setting : m_kept)
    listen(setting, m_live);
}

DeviceDesk::~DeviceDesk() = default;

void DeviceDesk::listen(const DeviceSetting& setting, std::vector<std::unique_ptr<LiveDevice>>& to) {
  auto device = std::make_unique<LiveDevice>(setting);
  device->setHaste(m_haste);
  connect(device.get(), &LiveDevice::changed, this, &DeviceDesk::changed);
  to.push_back(std::move(device));
}

void DeviceDesk::setHaste(double haste) {
  m_haste = haste;
  for (auto* list : {&m_standIns, &m_live})
    for (auto& device : *list)
      device->setHaste(haste);
}

void DeviceDesk::keep(const std::vector<DeviceSetting>& devices) {
  if (devices == m_kept) return;
  m_kept = devices;
  keepDevices(m_settings, m_kept);
  m_live.clear();
  for (const auto& setting : m_kept)
    listen(setting, m_live);
  emit devicesChanged();
  emit changed();
}

LiveDevice* DeviceDesk::scale(const QString& name) const {
  std::vector<LiveDevice*> scales;
  for (const auto* list : {&m_standIns, &m_live})
    for (const auto& device : *list)
      if (device->setting().kind == DeviceSetting::Kind::Scale) scales.push_back(device.get());
  if (scales.empty()) return nullptr;
  if (m_sim) return scales.front();
  for (auto* scale : scales)
    if (!name.isEmpty() && scale->setting().name == name) return scale;
  return scales.size() == 1 ? scales.front() : nullptr;
}

LiveDevice* DeviceDesk::pen() const {
  for (const auto* list : {&m_standIns, &m_live})
    for (const auto& device : *list)
      if (device->setting().kind == DeviceSetting::Kind::Pen) return device.get();
  return nullptr;
}

void DeviceDesk::startStandIn() {
  if (m_sim) return;
  sim::ScaleKind kind;
  kind.step = core::Mass::fromGrams(0.1);
  kind.capacity = core::Mass::fromKilograms(60); // a bench's pail and a drum's load alike
  m_sim = std::make_unique<sim::SimServer>(kind);
  m_panel = std::make_unique<sim::SimPanel>(*m_sim);
  m_panel->setAttribute(Qt::WA_QuitOnClose, false); // it does not keep the program open
  listen({DeviceSetting::Kind::Scale, tr("stand-in scale"), "serial:" + m_sim->scaleCable(), {}, {}, {}, "T"},
         m_standIns);
  listen({DeviceSetting::Kind::Pen, tr("stand-in pen"), "serial:" + m_sim->penCable(), {}, {}, {}, {}},
         m_standIns);
  emit devicesChanged();
  emit changed();
}

void DeviceDesk::stopStandIn() {
  m_standIns.clear();
  m_panel.reset();
  m_sim.reset();
  emit devicesChanged();
  emit changed();
}

} // namespace butte::app
