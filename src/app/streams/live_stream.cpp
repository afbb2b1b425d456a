#include "streams/live_stream.h"

#include "base/decimal.h"
#include "stream/modbus_register.h"
#include "streams/local_time.h"
#include "words.h"

#include <QDateTime>
#include <algorithm>

namespace butte::app {

using devices::SampleMark;
using devices::StreamAddress;

namespace {

constexpr std::size_t mostHeard = 200, sampleLetters = 120;

std::string markWord(SampleMark mark) {
  switch (mark) {
  case SampleMark::Sound:
    return {};
  case SampleMark::Wild:
    return "wild";
  case SampleMark::Stuck:
    return "stuck";
  case SampleMark::Clock:
    return "clock";
  }
  return {};
}

/// Its registers are what is mapped.
ports::StreamWish wishOf(const LiveStream::Setting& setting) {
  auto wish = setting.wish;
  wish.order = setting.stream.monthFirst ? devices::DateOrder::MonthFirst : devices::DateOrder::DayFirst;
  wish.password = setting.password;
  for (const auto& channel : setting.stream.channels)
    if (const auto place = devices::ModbusRegister::parse(channel.key)) wish.registers.push_back(*place);
  return wish;
}

} // namespace

LiveStream::LiveStream(Setting setting, LiveStream* before) : m_setting(std::move(setting)) {
  constexpr std::int64_t secondsPerMinute = 60;
  const auto& stream = m_setting.stream;
  for (const auto& channel : stream.channels)
    m_gates.emplace_back(devices::gateRulesFor(channel.quantity, secondsPerMinute * stream.everyMinutes));
  m_newest.resize(m_gates.size());
  if (before) takeOver(*before);
  if (m_source) return;
  const auto address = StreamAddress::parse(stream.address);
  if (!address) {
    m_wrong = QString::fromStdString(words::problemText(address.problem()));
    return;
  }
  listenTo(ports::streamSourceFor(*address, wishOf(m_setting)));
  m_source->open();
}

void LiveStream::listenTo(std::unique_ptr<ports::StreamSource> source) {
  m_source = std::move(source);
  connect(m_source.get(), &ports::StreamSource::rowRead, this, &LiveStream::hearRow);
  connect(m_source.get(), &ports::StreamSource::unread, this, &LiveStream::hearUnread);
  connect(m_source.get(), &ports::StreamSource::stateChanged, this, &LiveStream::changed);
}

bool LiveStream::goesOnAs(const Setting& next) const {
  const auto address = StreamAddress::parse(next.stream.address);
  return address && m_source && m_setting.stream.address == next.stream.address &&
         m_setting.password == next.password &&
         (address->kind == StreamAddress::Kind::Lines || address->kind == StreamAddress::Kind::Mqtt);
}

/// A file is read anew, since a column that was not taken before may be now; a device is asked for other
/// registers. What comes by itself goes on as it is.
void LiveStream::takeOver(LiveStream& before) {
  const auto& was = before.m_setting.stream;
  const auto& now = m_setting.stream;
  if (was.address == now.address) {
    m_heard = before.m_heard;
    m_lastHeard = before.m_lastHeard;
  }
  if (!before.goesOnAs(m_setting)) {
    before.m_source.reset(); // a port is let go before it is asked for again
    return;
  }
  before.m_source->disconnect(&before);
  listenTo(std::move(before.m_source));
  if (was.everyMinutes != now.everyMinutes) return;
  for (std::size_t i = 0; i < m_gates.size(); ++i) {
    const auto known = std::find(was.channels.begin(), was.channels.end(), now.channels[i]);
    if (known == was.channels.end()) continue;
    const auto place = static_cast<std::size_t>(known - was.channels.begin());
    std::swap(m_gates[i], before.m_gates[place]); // what waits in it is not told twice
    m_newest[i] = before.m_newest[place];
  }
}

ports::StreamSource::State LiveStream::state() const {
  return m_source ? m_source->state() : ports::StreamSource::State::Closed;
}

QString LiveStream::trouble() const {
  return m_source ? m_source->trouble() : m_wrong;
}

std::optional<std::int64_t> LiveStream::silentSeconds(std::int64_t now) const {
  return m_lastHeard ? std::optional(std::max<std::int64_t>(0, now - *m_lastHeard)) : std::nullopt;
}

std::string LiveStream::stuckKey() const {
  for (std::size_t i = 0; i < m_gates.size(); ++i)
    if (m_gates[i].isStuck()) return m_setting.stream.channels[i].key;
  return {};
}

std::optional<double> LiveStream::now(const std::string& vesselUid, const std::string& quantity) const {
  const auto& channels = m_setting.stream.channels;
  for (std::size_t i = 0; i < channels.size(); ++i)
    if (channels[i].vesselUid == vesselUid && channels[i].quantity == quantity && m_newest[i])
      return m_newest[i];
  return std::nullopt;
}

void LiveStream::remember(const devices::StreamSample& sample, std::int64_t at) {
  const auto known = std::find_if(m_heard.begin(), m_heard.end(),
                                  [&](const HeardFigure& figure) { return figure.key == sample.key; });
  if (known != m_heard.end())
    *known = {sample.key, sample.text, sample.unit, at};
  else if (m_heard.size() < mostHeard)
    m_heard.push_back({sample.key, sample.text, sample.unit, at});
}

void LiveStream::hearRow(const devices::StreamRow& row) {
  const auto now = QDateTime::currentSecsSinceEpoch();
  const bool dated = row.at.index() != 0;
  const auto at = secondsOf(row.at, now, m_lastRow);
  m_lastHeard = now;
  for (const auto& sample : row.samples)
    remember(sample, at);
  if (dated) m_lastRow = at;
  for (const auto& sample : row.samples)
    if (!row.isOld && !isKnown(sample, dated, at)) takeSample(sample, at, now, dated);
  emit changed();
}

/// A figure of a file that is in the book already.
bool LiveStream::isKnown(const devices::StreamSample& sample, bool dated, std::int64_t at) const {
  if (!dated) return false;
  const auto until = m_setting.until.find(sample.key);
  return until != m_setting.until.end() && at <= until->second;
}

void LiveStream::takeSample(const devices::StreamSample& sample, std::int64_t at, std::int64_t now,
                            bool dated) {
  const auto& channels = m_setting.stream.channels;
  for (std::size_t i = 0; i < channels.size(); ++i) {
    const auto& channel = channels[i];
    const auto vessel = m_setting.vessels.find(channel.vesselUid);
    if (channel.key != sample.key || vessel == m_setting.vessels.end()) continue;
    const auto figure = devices::saidFigure(sample.text);
    const auto value =
        figure ? std::optional(book::keptOf(channel, vessel->second, figure->value)) : std::nullopt;
    if (value && !*value) m_channelTrouble = value->problem();
    if (!value || !*value) {
      hearUnread(QByteArray::fromStdString(sample.key + ": " + sample.text));
      continue;
    }
    ++m_tally.heard;
    // A clock that can't be must not hide what comes after.
    if (dated && at <= now) m_tally.until[sample.key] = std::max(m_tally.until[sample.key], at);
    const auto wild = m_gates[i].wild();
    const auto kept = m_gates[i].take(at, **value, now);
    m_tally.wild += m_gates[i].wild() - wild;
    if (m_gates[i].wild() == wild) m_newest[i] = **value;
    for (const auto& one : kept)
      keep(channel, one, sample.text);
  }
}

/// What it says to have been typed is what was sent, where that is what is kept: the median of a quarter of
/// an hour was never sent.
void LiveStream::keep(const book::StreamChannel& channel, const devices::KeptSample& kept,
                      const std::string& typed) {
  const auto* quantity = book::quantityFrom(channel.quantity);
  constexpr int letters = 40;
  const auto figure = devices::saidFigure(typed);
  const auto& facts = m_setting.vessels.at(channel.vesselUid);
  const auto sent = figure ? book::keptOf(channel, facts, figure->value) : core::Result<double>(0.0);
  const bool asSent =
      channel.factor.empty() && channel.unit != "cm" && channel.unit != "%" && sent && *sent == kept.value;
  const auto digits =
      asSent ? core::decimalText(figure->value) : QString::number(kept.value, 'g', 5).toStdString();
  const auto unit = asSent ? channel.unit : std::string(quantity->unit);
  book::Reading reading{0,
                        channel.vesselUid,
                        channel.quantity,
                        {kept.at},
                        kept.value,
                        (digits + (unit.empty() ? "" : " " + unit)).substr(0, letters),
                        {},
                        {}};
  reading.mark = markWord(kept.mark);
  m_readings.push_back(std::move(reading));
}

void LiveStream::hearUnread(const QByteArray& what) {
  m_lastHeard = QDateTime::currentSecsSinceEpoch();
  // A file that is read anew says its damaged lines anew; they were counted the first time.
  const bool mapped = !m_setting.vessels.empty();
  if (!m_source->isCaughtUp() && (!mapped || !m_setting.until.empty())) return;
  ++m_tally.unread;
  if (m_tally.unreadSample.empty()) {
    auto sample = QString::fromUtf8(what.left(sampleLetters));
    for (auto& letter : sample)
      if (!letter.isPrint()) letter = QChar(0x00B7); // a damaged line may hold anything
    m_tally.unreadSample = sample.toStdString();
  }
  emit changed();
}

std::vector<book::Reading> LiveStream::takeReadings(bool closing) {
  if (closing)
    for (std::size_t i = 0; i < m_gates.size(); ++i)
      for (const auto& kept : m_gates[i].close())
        keep(m_setting.stream.channels[i], kept, {});
  constexpr std::size_t atOnce = 4000; // a year brought in at once must not hold the window
  if (closing || m_readings.size() <= atOnce) return std::exchange(m_readings, {});
  const auto end = m_readings.begin() + static_cast<std::ptrdiff_t>(atOnce);
  std::vector<book::Reading> out(std::make_move_iterator(m_readings.begin()), std::make_move_iterator(end));
  m_readings.erase(m_readings.begin(), end);
  return out;
}

book::StreamTally LiveStream::takeTally() {
  return std::exchange(m_tally, {});
}

void LiveStream::giveBack(std::vector<book::Reading> readings, const book::StreamTally& tally) {
  readings.insert(readings.end(), m_readings.begin(), m_readings.end());
  m_readings = std::move(readings);
  auto sum = tally;
  sum.add(m_tally);
  m_tally = sum;
}

} // namespace butte::app
