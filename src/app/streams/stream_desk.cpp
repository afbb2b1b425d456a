#include "streams/stream_desk.h"

#include "document/book_desk.h"
#include "edits/stream_edits.h"
#include "edits/tank_edits.h"
#include "serve/tank_server.h"

#include <QSettings>
#include <algorithm>
#include <utility>

namespace butte::app {

using book::Kind;

namespace {

constexpr auto listenKey = "streams/listen/", passwordKey = "streams/password/";
constexpr int keepMilliseconds = 10000, toldMilliseconds = 250, moreMilliseconds = 30;

QString settingOf(const char* prefix, const std::string& uid) {
  return prefix + QString::fromLatin1(QByteArray::fromStdString(uid).toHex());
}

bool isSame(const LiveStream::Setting& a, const LiveStream::Setting& b) {
  const auto sameVessel = [](const auto& x, const auto& y) {
    return x.first == y.first && x.second.full == y.second.full &&
           x.second.measures.has_value() == y.second.measures.has_value() &&
           (!x.second.measures || (x.second.measures->acrossCm == y.second.measures->acrossCm &&
                                   x.second.measures->alongCm == y.second.measures->alongCm &&
                                   x.second.measures->heightCm == y.second.measures->heightCm &&
                                   x.second.measures->shape == y.second.measures->shape));
  };
  return a.uid == b.uid && a.stream == b.stream && a.password == b.password &&
         std::equal(a.vessels.begin(), a.vessels.end(), b.vessels.begin(), b.vessels.end(), sameVessel);
}

} // namespace

StreamDesk::StreamDesk(BookDesk& desk, QSettings& settings, QObject* parent)
    : QObject(parent), m_desk(desk), m_settings(settings) {
  m_keep.setInterval(keepMilliseconds);
  connect(&m_keep, &QTimer::timeout, this, &StreamDesk::keepNow);
  m_keep.start();
  // Many lines within a moment are told of once.
  m_told.setInterval(toldMilliseconds);
  m_told.setSingleShot(true);
  connect(&m_told, &QTimer::timeout, this, &StreamDesk::changed);
  connect(&desk, &BookDesk::bookOpened, this, &StreamDesk::reload);
  connect(&desk, &BookDesk::bookClosing, this, [this] {
    keepAll(true);
    m_live.clear();
  });
  connect(&desk, &BookDesk::changed, this, [this](const std::vector<book::Ref>& refs) {
    if (std::any_of(refs.begin(), refs.end(), [](const book::Ref& ref) {
          return ref.kind == Kind::Stream || ref.kind == Kind::Vessel;
        }))
      reload();
  });
}

StreamDesk::~StreamDesk() {
  keepAll(true);
}

bool StreamDesk::isListening(const std::string& uid) const {
  return m_settings.value(settingOf(listenKey, uid), false).toBool();
}

void StreamDesk::setListening(const std::string& uid, bool on) {
  if (on)
    m_settings.setValue(settingOf(listenKey, uid), true);
  else
    m_settings.remove(settingOf(listenKey, uid));
  reload();
}

QString StreamDesk::password(const std::string& uid) const {
  return m_settings.value(settingOf(passwordKey, uid)).toString();
}

void StreamDesk::setPassword(const std::string& uid, const QString& password) {
  if (password.isEmpty())
    m_settings.remove(settingOf(passwordKey, uid));
  else
    m_settings.setValue(settingOf(passwordKey, uid), password);
  reload();
}

LiveStream* StreamDesk::live(const std::string& uid) const {
  for (const auto& one : m_live)
    if (one->setting().uid == uid) return one.get();
  return nullptr;
}

std::vector<const LiveStream*> StreamDesk::ofVessel(const std::string& vesselUid) const {
  std::vector<const LiveStream*> out;
  for (const auto& one : m_live) {
    const auto& channels = one->setting().stream.channels;
    if (std::any_of(channels.begin(), channels.end(),
                    [&](const book::StreamChannel& channel) { return channel.vesselUid == vesselUid; }))
      out.push_back(one.get());
  }
  return out;
}

std::vector<LiveStream::Setting> StreamDesk::wanted() const {
  std::vector<LiveStream::Setting> out;
  if (!m_desk.isOpen() || m_desk.isReadOnly()) return out;
  const StreamEdits edits(m_desk);
  const TankEdits tanks(m_desk);
  for (const auto& [ref, stream] : edits.all()) {
    if (!isListening(ref.uid)) continue;
    LiveStream::Setting setting;
    setting.uid = ref.uid;
    setting.stream = stream;
    setting.password = password(ref.uid);
    setting.wish = m_pace;
    for (const auto& channel : stream.channels)
      if (!channel.vesselUid.empty())
        if (auto facts = tanks.facts(channel.vesselUid))
          setting.vessels[channel.vesselUid] = std::move(facts).value();
    out.push_back(std::move(setting));
  }
  return out;
}

/// Those that are as they were go on undisturbed.
void StreamDesk::reload() {
  auto old = std::exchange(m_live, {});
  bool other = false;
  for (auto& want : wanted()) {
    const auto was = std::find_if(old.begin(), old.end(),
                                  [&](const auto& one) { return one && one->setting().uid == want.uid; });
    if (was != old.end() && isSame((*was)->setting(), want)) {
      m_live.push_back(std::move(*was));
      continue;
    }
    other = true;
    m_live.push_back(successor(std::move(want), was == old.end() ? nullptr : was->get()));
    connect(m_live.back().get(), &LiveStream::changed, this, [this] {
      if (!m_told.isActive()) m_told.start();
    });
  }
  for (const auto& one : old)
    if (one) {
      keepOf(*one, true);
      other = true;
    }
  if (other) emit streamsChanged();
}

/// What a file said is in the book before it is read anew.
std::unique_ptr<LiveStream> StreamDesk::successor(LiveStream::Setting setting, LiveStream* before) {
  if (before && !before->goesOnAs(setting)) keepOf(*before, true);
  setting.until = book::streamUntil(m_desk.book().store(), setting.uid);
  return std::make_unique<LiveStream>(std::move(setting), before);
}

void StreamDesk::setPace(const ports::StreamWish& pace) {
  m_pace = pace;
  for (auto& one : m_live)
    keepOf(*one, true);
  m_live.clear();
  reload();
}

void StreamDesk::keepNow() {
  keepAll(false);
}

void StreamDesk::keepAll(bool closing) {
  for (const auto& one : m_live)
    keepOf(*one, closing);
}

void StreamDesk::keepOf(LiveStream& stream, bool closing) {
  if (m_keeping || !m_desk.isOpen()) return; // telling of what was kept may lead back here
  m_keeping = true;
  auto readings = stream.takeReadings(closing);
  const bool more = stream.hasReadings();
  const auto tally = more ? book::StreamTally() : stream.takeTally();
  if (!readings.empty() || !tally.isEmpty()) {
    const auto trouble = book::keepStreamed(m_desk.book(), {Kind::Stream, stream.setting().uid},
                                            stream.setting().stream.name, readings, tally);
    if (trouble)
      stream.giveBack(std::move(readings), tally);
    else if (more)
      QTimer::singleShot(moreMilliseconds, this, &StreamDesk::keepNow);
  }
  m_keeping = false;
}

QString StreamDesk::startStandIn() {
  constexpr double everySeconds = 1, haste = 60;
  if (!m_standIn) {
    m_standIn = std::make_unique<sim::TankServer>();
    m_standIn->serveLines();
    m_standIn->start(everySeconds, haste);
  }
  return QString("tcp:127.0.0.1:%1").arg(m_standIn->linePort());
}

} // namespace butte::app
