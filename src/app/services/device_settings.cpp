#include "services/device_settings.h"

#include <QSettings>

namespace butte::app {

namespace {
constexpr auto devicesKey = "devices", penWord = "pen", scaleWord = "scale";
constexpr int mostDevices = 20;
} // namespace

std::vector<DeviceSetting> keptDevices(QSettings& settings) {
  std::vector<DeviceSetting> out;
  const int count = std::min(settings.beginReadArray(devicesKey), mostDevices);
  for (int i = 0; i < count; ++i) {
    settings.setArrayIndex(i);
    const auto text = [&](const char* key) { return settings.value(key).toString(); };
    DeviceSetting device{text("kind") == penWord ? DeviceSetting::Kind::Pen : DeviceSetting::Kind::Scale,
                         text("name"),
                         text("address"),
                         text("serial"),
                         text("pattern"),
                         text("ask"),
                         text("tare")};
    if (!device.address.isEmpty()) out.push_back(std::move(device));
  }
  settings.endArray();
  return out;
}

void keepDevices(QSettings& settings, const std::vector<DeviceSetting>& devices) {
  settings.remove(devicesKey);
  settings.beginWriteArray(devicesKey, static_cast<int>(devices.size()));
  for (std::size_t i = 0; i < devices.size(); ++i) {
    settings.setArrayIndex(static_cast<int>(i));
    const auto& device = devices[i];
    settings.setValue("kind", device.kind == DeviceSetting::Kind::Pen ? penWord : scaleWord);
    settings.setValue("name", device.name);
    settings.setValue("address", device.address);
    settings.setValue("serial", device.serial);
    settings.setValue("pattern", device.pattern);
    settings.setValue("ask", device.ask);
    settings.setValue("tare", device.tare);
  }
  settings.endArray();
}

} // namespace butte::app
