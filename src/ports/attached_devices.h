#pragma once
#include <QString>
#include <vector>

namespace butte::ports {

/// What hangs on a serial port of this machine now.
struct AttachedDevice {
  QString path;        ///< "/dev/ttyUSB0"
  QString description; ///< as its maker calls it; may be empty
  QString serial;      ///< of its plug; may be empty
};

std::vector<AttachedDevice> attachedDevices();

} // namespace butte::ports
