#include "services/bench_sounds.h"

#include <QDataStream>
#include <QFile>
#include <QSettings>
#include <array>
#include <canberra.h>
#include <cmath>
#include <numbers>

namespace butte::app {

namespace {

constexpr const char* onKey = "bench/sounds";
constexpr int rate = 22050;
constexpr double loudness = 0.4, fadeSeconds = 0.01;

struct Tone {
  double hertz, seconds;
};

/// Up for what is well, down and twice for what is not, three alike for a clock.
QVector<Tone> tonesOf(BenchSound sound) {
  switch (sound) {
  case BenchSound::Taken:
    return {{880, 0.09}, {1320, 0.14}};
  case BenchSound::Warning:
    return {{520, 0.18}, {0, 0.05}, {390, 0.3}};
  case BenchSound::TimeUp:
    break;
  }
  return {{990, 0.12}, {0, 0.08}, {990, 0.12}, {0, 0.08}, {990, 0.12}};
}

QByteArray samplesOf(const QVector<Tone>& tones) {
  QByteArray out;
  QDataStream stream(&out, QIODevice::WriteOnly);
  stream.setByteOrder(QDataStream::LittleEndian);
  for (const auto& tone : tones) {
    const int count = static_cast<int>(tone.seconds * rate);
    for (int i = 0; i < count; ++i) {
      const double at = static_cast<double>(i) / rate;
      const double fade = std::min({1.0, at / fadeSeconds, (tone.seconds - at) / fadeSeconds});
      const double value = loudness * fade * std::sin(2 * std::numbers::pi * tone.hertz * at);
      stream << static_cast<qint16>(value * 32767);
    }
  }
  return out;
}

/// RIFF WAVE, 16 bit, one channel.
QByteArray waveOf(const QByteArray& samples) {
  QByteArray out;
  QDataStream stream(&out, QIODevice::WriteOnly);
  stream.setByteOrder(QDataStream::LittleEndian);
  constexpr quint32 headLeft = 36, formatSize = 16;
  constexpr quint16 pcm = 1, channels = 1, bytes = 2, bits = 16;
  stream.writeRawData("RIFF", 4);
  stream << headLeft + static_cast<quint32>(samples.size());
  stream.writeRawData("WAVE", 4);
  stream.writeRawData("fmt", 3);
  stream << quint8(' ') << formatSize << pcm << channels << static_cast<quint32>(rate)
         << static_cast<quint32>(rate * bytes) << bytes << bits;
  stream.writeRawData("data", 4);
  stream << static_cast<quint32>(samples.size());
  return out + samples;
}

} // namespace

BenchSounds::BenchSounds(QSettings& settings, QObject* parent) : QObject(parent), m_settings(settings) {}

BenchSounds::~BenchSounds() {
  if (m_context) ca_context_destroy(m_context);
}

bool BenchSounds::isOn() const {
  return m_settings.value(onKey, false).toBool();
}

void BenchSounds::setOn(bool on) {
  m_settings.setValue(onKey, on);
}

QString BenchSounds::fileOf(BenchSound sound) {
  if (!m_folder) m_folder = std::make_unique<QTemporaryDir>();
  const auto path = m_folder->filePath(QString::number(static_cast<int>(sound)) + ".wav");
  if (QFile::exists(path)) return path;
  QFile file(path);
  if (!file.open(QIODevice::WriteOnly)) return {};
  file.write(waveOf(samplesOf(tonesOf(sound))));
  return path;
}

void BenchSounds::play(BenchSound sound) {
  if (!isOn()) return;
  const auto path = fileOf(sound);
  if (path.isEmpty()) return;
  if (!m_context && ca_context_create(&m_context) != CA_SUCCESS) m_context = nullptr;
  if (m_context)
    ca_context_play(m_context, 0, CA_PROP_MEDIA_FILENAME, QFile::encodeName(path).constData(),
                    CA_PROP_MEDIA_ROLE, "event", nullptr);
  emit played(sound);
}

} // namespace butte::app
