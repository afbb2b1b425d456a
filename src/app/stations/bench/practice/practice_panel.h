#pragma once
#include "practice/practice_world.h"

#include <QWidget>
#include <functional>
#include <memory>

class QComboBox;
class QLabel;
class QPushButton;
class QVBoxLayout;

namespace butte::app {

class BenchEdits;
class DeviceDesk;
class FlowRow;
class PracticePicture;
class UnitsShown;

/// The hands at a practice bench: what to wear, tubs, cup and scale, vessels, pens. The page beside it is the
/// same as at a true bench, with stand-ins on its cables. Seen in a practice run only.
class PracticePanel : public QWidget {
  Q_OBJECT

public:
  PracticePanel(BenchEdits& run, DeviceDesk& devices, const UnitsShown& units, QWidget* parent = nullptr);
  ~PracticePanel() override;

  QSize sizeHint() const override { return {panelWidth, QWidget::sizeHint().height()}; }
  /// After every event: the bench is stood up, or put away.
  void refresh();
  /// Before something is told: what lies on the scale is truly there.
  void settle();
  /// The bench and its stand-ins go; what happened is kept.
  void putAway();
  sim::PracticeWorld* world() { return m_world.get(); }

  /// What truly happened, to be kept.
  std::function<void(const core::TrueDeed& deed)> onTruth;

private:
  static constexpr int panelWidth = 400;

  void standUp();
  void build();
  QPushButton* add(FlowRow* row, const QString& words, const QString& name, std::function<void()> does);
  FlowRow* section(const QString& title);
  void buildGear();
  void buildTubs();
  void buildScale();
  void buildVessels();
  void buildPens();
  void look();
  void calibrate();
  void pourWater(std::size_t vessel);
  void tick();
  void show();
  void note(const QString& words);
  std::size_t vessel() const;
  core::Mass portion() const;

  BenchEdits& m_run;
  DeviceDesk& m_devices;
  const UnitsShown& m_units;
  std::unique_ptr<sim::PracticeWorld> m_world;
  std::string m_of; ///< the run that it stands for
  int m_ticks = 0;
  bool m_standing = false; ///< it is stood up just now
  QVBoxLayout* m_column;
  QWidget* m_body = nullptr;
  PracticePicture* m_picture = nullptr;
  QComboBox *m_tubs = nullptr, *m_vessels = nullptr;
  QLabel *m_note = nullptr, *m_cupsWords = nullptr;
  QPushButton *m_fast = nullptr, *m_slow = nullptr, *m_nearer = nullptr, *m_farther = nullptr;
};

} // namespace butte::app
