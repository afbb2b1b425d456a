#pragma once
#include "streams/live_stream.h"

#include <QObject>
#include <QTimer>
#include <memory>
#include <vector>

class QSettings;

namespace butte::sim {
class TankServer;
}

namespace butte::app {

class BookDesk;

/// The loggers that this computer listens to. What a logger is and whose its figures are stands in the book;
/// whether this computer listens, and a broker's password, in its own settings.
class StreamDesk : public QObject {
  Q_OBJECT

public:
  StreamDesk(BookDesk& desk, QSettings& settings, QObject* parent = nullptr);
  ~StreamDesk() override;

  bool isListening(const std::string& uid) const;
  void setListening(const std::string& uid, bool on);
  QString password(const std::string& uid) const;
  void setPassword(const std::string& uid, const QString& password);

  const std::vector<std::unique_ptr<LiveStream>>& live() const { return m_live; }
  LiveStream* live(const std::string& uid) const;
  /// Those that are mapped to a vessel.
  std::vector<const LiveStream*> ofVessel(const std::string& vesselUid) const;
  /// What has come is kept now.
  void keepNow();

  /// A tank that is none, on this computer; gives the address where its logger is.
  QString startStandIn();
  sim::TankServer* standIn() const { return m_standIn.get(); }
  /// How quick things go, for trying.
  void setPace(const ports::StreamWish& pace);

signals:
  /// Others than before.
  void streamsChanged();
  /// A figure, a silence, a cable.
  void changed();

private:
  void reload();
  void keepAll(bool closing);
  void keepOf(LiveStream& stream, bool closing);
  std::vector<LiveStream::Setting> wanted() const;
  std::unique_ptr<LiveStream> successor(LiveStream::Setting setting, LiveStream* before);

  BookDesk& m_desk;
  QSettings& m_settings;
  ports::StreamWish m_pace;
  QTimer m_keep, m_told;
  std::vector<std::unique_ptr<LiveStream>> m_live;
  std::unique_ptr<sim::TankServer> m_standIn;
  bool m_keeping = false;
};

} // namespace butte::app
