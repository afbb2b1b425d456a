#pragma once
#include "book/reading.h"
#include "book/stream.h"
#include "book/stream_day.h"
#include "stream/stream_gate.h"
#include "stream_source.h"

#include <QObject>
#include <QString>
#include <map>
#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace butte::app {

/// What a logger said last under a name.
struct HeardFigure {
  std::string key, text, unit;
  std::int64_t at = 0; ///< seconds since 1970
};

/// A logger while it is listened to: its figures become readings of vessels, thinned and judged.
class LiveStream : public QObject {
  Q_OBJECT

public:
  struct Setting {
    std::string uid;
    book::Stream stream;
    std::map<std::string, book::VesselFacts> vessels; ///< by uid, of its channels
    book::ReadUntil until; ///< by name: a file's figures are in the book up to here
    QString password;
    ports::StreamWish wish; ///< its pace; the rest follows from the stream
  };
  /// `before`: the same logger as it was set up until now. What was heard, and what need not begin anew, is
  /// taken over from it.
  explicit LiveStream(Setting setting, LiveStream* before = nullptr);

  /// Whether it need not begin anew to be this: the same lines, or the same topics.
  bool goesOnAs(const Setting& next) const;

  const Setting& setting() const { return m_setting; }
  ports::StreamSource::State state() const;
  /// What the system says while it is not there, or what is wrong with its address.
  QString trouble() const;
  /// By their names, in the order in which they first came.
  const std::vector<HeardFigure>& heard() const { return m_heard; }
  /// Seconds since anything was heard; nothing before the first word.
  std::optional<std::int64_t> silentSeconds(std::int64_t now) const;
  /// A channel whose figure has not moved for a day; empty where there is none.
  std::string stuckKey() const;
  /// Why a figure could not be turned into what is kept of its vessel, the last time; nothing where all
  /// could.
  const book::Trouble& channelTrouble() const { return m_channelTrouble; }
  /// What the newest sample of a vessel's quantity was, in its kept unit.
  std::optional<double> now(const std::string& vesselUid, const std::string& quantity) const;

  /// Readings since they were last taken, so many at most; with `closing` all of them and what still waits in
  /// the gates.
  std::vector<book::Reading> takeReadings(bool closing);
  bool hasReadings() const { return !m_readings.empty(); }
  /// Counts since they were last taken: once there are no readings left that belong to them.
  book::StreamTally takeTally();
  /// Could not be kept: it waits for the next time.
  void giveBack(std::vector<book::Reading> readings, const book::StreamTally& tally);

signals:
  void changed();

private:
  void takeOver(LiveStream& before);
  void listenTo(std::unique_ptr<ports::StreamSource> source);
  bool isKnown(const devices::StreamSample& sample, bool dated, std::int64_t at) const;
  void hearRow(const devices::StreamRow& row);
  void hearUnread(const QByteArray& what);
  void remember(const devices::StreamSample& sample, std::int64_t at);
  void takeSample(const devices::StreamSample& sample, std::int64_t at, std::int64_t now, bool dated);
  void keep(const book::StreamChannel& channel, const devices::KeptSample& kept, const std::string& typed);

  Setting m_setting;
  QString m_wrong;
  std::unique_ptr<ports::StreamSource> m_source;
  std::vector<devices::StreamGate> m_gates; ///< parallel to the channels
  std::vector<std::optional<double>> m_newest;
  std::vector<HeardFigure> m_heard;
  std::vector<book::Reading> m_readings;
  book::StreamTally m_tally;
  book::Trouble m_channelTrouble;
  std::optional<std::int64_t> m_lastRow, m_lastHeard;
};

} // namespace butte::app
