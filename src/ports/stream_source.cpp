#include "stream_source.h"

#include "file_tail.h"
#include "line_stream.h"
#include "modbus_poll.h"
#include "mqtt_listener.h"

#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>

namespace butte::ports {

using devices::StreamAddress;
using devices::StreamSample;

void StreamSource::become(State state, const QString& trouble) {
  if (state == m_state && trouble == m_trouble) return;
  m_state = state;
  m_trouble = trouble;
  emit stateChanged();
}

std::unique_ptr<StreamSource> streamSourceFor(const StreamAddress& address, const StreamWish& wish) {
  switch (address.kind) {
  case StreamAddress::Kind::File:
    return std::make_unique<FileTail>(QString::fromStdString(address.path), wish.order,
                                      wish.lookMilliseconds);
  case StreamAddress::Kind::Lines:
    return std::make_unique<LineStream>(address.port);
  case StreamAddress::Kind::Modbus:
    return std::make_unique<ModbusPoll>(address, wish.registers, wish.pollMilliseconds);
  case StreamAddress::Kind::Mqtt:
    break;
  }
  return std::make_unique<MqttListener>(address, wish.password);
}

namespace {

constexpr int mostDepth = 8;
constexpr std::size_t mostSamples = 200;

void gather(const QJsonValue& value, const QString& key, int depth, std::vector<StreamSample>& out) {
  if (depth > mostDepth || out.size() >= mostSamples) return;
  if (value.isDouble()) {
    out.push_back({key.toStdString(), QString::number(value.toDouble(), 'g', 12).toStdString(), {}});
  } else if (value.isString()) {
    const auto figure = devices::saidFigure(value.toString().toStdString());
    if (figure)
      out.push_back({key.toStdString(), QString::number(figure->value, 'g', 12).toStdString(), figure->unit});
  } else if (value.isObject()) {
    const auto object = value.toObject();
    for (auto it = object.begin(); it != object.end(); ++it)
      gather(it.value(), key.isEmpty() ? it.key() : key + "." + it.key(), depth + 1, out);
  } else if (value.isArray()) {
    const auto list = value.toArray();
    for (qsizetype i = 0; i < list.size(); ++i)
      gather(list[i], key + "[" + QString::number(i) + "]", depth + 1, out);
  }
}

} // namespace

std::vector<StreamSample> jsonSamples(const QByteArray& text) {
  std::vector<StreamSample> out;
  const auto bare =
      devices::saidFigure(std::string_view(text.constData(), static_cast<std::size_t>(text.size())));
  if (bare) return {{"", QString::number(bare->value, 'g', 12).toStdString(), bare->unit}};
  const auto document = QJsonDocument::fromJson(text);
  if (document.isObject()) gather(document.object(), {}, 0, out);
  return out;
}

} // namespace butte::ports
