#pragma once
#include <QString>
#include <vector>

class QSettings;

namespace butte::app {

/// A scale or a pen of this bench, as the person set it up. Of the machine, not of the book: another desk has
/// other cables.
struct DeviceSetting {
  enum class Kind { Scale, Pen };
  Kind kind = Kind::Scale;
  QString name;
  QString address; ///< docs/formats/scale_patterns.md: "serial:/dev/ttyUSB0,9600,8N1", "tcp:host:port"
  QString serial;  ///< of the plug, where it has one: the device is found again by it at another path
  QString pattern; ///< of a scale's lines; empty: the usual shapes
  QString ask;     ///< what makes it send one line; empty: it sends by itself
  QString tare;    ///< what makes it tare; empty: the hand presses
  bool operator==(const DeviceSetting&) const = default;
};

std::vector<DeviceSetting> keptDevices(QSettings& settings);
void keepDevices(QSettings& settings, const std::vector<DeviceSetting>& devices);

} // namespace butte::app
