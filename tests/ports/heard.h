#pragma once
#include "stream_source.h"

#include <QTest>
#include <memory>
#include <string>
#include <vector>

namespace butte::ports {

inline devices::StreamAddress addressOf(const QString& text) {
  return devices::StreamAddress::parse(text.toStdString()).value();
}

/// A source and all that it said.
struct Heard {
  explicit Heard(const QString& address, StreamWish wish = {}) {
    source = streamSourceFor(addressOf(address), wish);
    QObject::connect(source.get(), &StreamSource::rowRead, source.get(),
                     [this](const devices::StreamRow& row) { rows.push_back(row); });
    QObject::connect(source.get(), &StreamSource::unread, source.get(),
                     [this](const QByteArray& what) { unread.push_back(what.toStdString()); });
    source->open();
  }
  bool hasRows(std::size_t count, int milliseconds = 5000) {
    return QTest::qWaitFor([&] { return rows.size() >= count; }, milliseconds);
  }
  bool becomes(StreamSource::State state, int milliseconds = 6000) {
    return QTest::qWaitFor([&] { return source->state() == state; }, milliseconds);
  }
  /// The newest text under a key; empty where there is none.
  std::string last(const std::string& key) const {
    for (auto row = rows.rbegin(); row != rows.rend(); ++row)
      for (const auto& sample : row->samples)
        if (sample.key == key) return sample.text;
    return {};
  }
  std::vector<devices::StreamRow> rows;
  std::vector<std::string> unread;
  std::unique_ptr<StreamSource> source;
};

} // namespace butte::ports
