#pragma once
#include <QObject>
#include <QTemporaryDir>
#include <memory>

class QSettings;
struct ca_context;

namespace butte::app {

/// What the bench may say to ears, for hands that look elsewhere.
enum class BenchSound {
  Taken,   ///< a weight was taken
  Warning, ///< too much, or something that does not belong
  TimeUp   ///< it has rested long enough
};

/// Short tones over the desktop's sound service (libcanberra). Off until somebody wants them; where there is
/// no such service nothing is heard.
class BenchSounds : public QObject {
  Q_OBJECT

public:
  explicit BenchSounds(QSettings& settings, QObject* parent = nullptr);
  ~BenchSounds() override;

  bool isOn() const;
  void setOn(bool on);
  void play(BenchSound sound);

signals:
  /// Handed to the desktop.
  void played(butte::app::BenchSound sound);

private:
  QString fileOf(BenchSound sound);

  QSettings& m_settings;
  ca_context* m_context = nullptr;
  std::unique_ptr<QTemporaryDir> m_folder; ///< of the tones, made when first heard
};

} // namespace butte::app
