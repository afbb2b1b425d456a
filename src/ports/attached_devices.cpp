#include "attached_devices.h"

#include <QSerialPortInfo>

namespace butte::ports {

std::vector<AttachedDevice> attachedDevices() {
  std::vector<AttachedDevice> out;
  for (const auto& port : QSerialPortInfo::availablePorts())
    out.push_back({port.systemLocation(), port.description(), port.serialNumber()});
  return out;
}

} // namespace butte::ports
