#pragma once
#include "edits/bench_edits.h"

#include <QTimer>
#include <QWidget>
#include <optional>
#include <utility>

class QLabel;
class QPushButton;

namespace butte::app {

class Prompts;
class BenchSounds;
class DebriefView;
class PracticePanel;
class RunChoices;
class RunOrderRow;
class RunResultView;
class RunFields;
class RunFigure;
class DeviceDesk;
class ScaleRow;
class KeepAwake;
class RunFoot;
class RunStray;
class RunTroublePanel;
class UnitsShown;

/// Weighing by the bench, one thing at a time: what to do, how much, in figures for a metre's distance; one
/// key or one large button goes on. All that is told is in the book before the next thing stands here.
class RunPage : public QWidget {
  Q_OBJECT

public:
  RunPage(BookDesk& desk, UnitsShown& units, Prompts& prompts, DeviceDesk& devices,
          QWidget* parent = nullptr);
  const BenchEdits& run() const { return m_run; }
  void begin(const FormulaEditor& editor);
  void beginWeights(const FormulaEditor& editor, const std::string& vessel, core::Volume holds,
                    const std::vector<core::Mass>& grams, const book::ForTank& forTank);
  void beginBags(const FormulaEditor& editor, std::size_t count);
  void beginPractice(const FormulaEditor& editor, std::uint64_t seed);
  void goOn(const book::Ref& ref);
  void refresh();

signals:
  void message(const QString& words);
  void left();
  void finished(const butte::book::Ref& batch);
  void devicesAsked();
  void checkAsked();
  void fullScreenAsked(bool on);
  void labelsAsked(const QStringList& labels);

protected:
  void keyPressEvent(QKeyEvent* event) override;
  void showEvent(QShowEvent* event) override;
  void hideEvent(QHideEvent* event) override;

private:
  void refreshFields();
  void refreshLot();
  void refreshTime();
  void refreshLive();
  void layOut();
  void connectParts();
  void connectFoot();
  void tellWeight(core::Mass mass, bool typed);
  void meanwhile();
  void standIn();
  void dipStandIn();
  void tuneStandIn();
  void next();
  void tell(const core::RunDeed& deed) { tellAll({deed}); }
  void tellAll(const std::vector<core::RunDeed>& deeds);
  void weigh();
  void measure();
  void strike();
  void skip();
  void pause();
  void fullScreen();
  void handOver();
  void finish();
  void endHere();
  void onBookChanged(const std::vector<book::Ref>& refs);
  std::size_t product() const;
  std::string scaleUnit() const;
  void told(const book::Trouble& trouble);

  BookDesk& m_desk;
  BenchEdits m_run;
  UnitsShown& m_units;
  Prompts& m_prompts;
  DeviceDesk& m_devices;
  QLabel *m_where, *m_heading, *m_detail, *m_caution, *m_log, *m_preparation;
  RunFigure* m_figure;
  ScaleRow* m_scale;
  RunFields* m_fields;
  RunTroublePanel* m_troubles;
  KeepAwake* m_awake;
  RunStray* m_stray;
  RunFoot* m_foot;
  bool m_fullScreen = false;
  QPushButton *m_next, *m_meanwhile, *m_check;
  RunOrderRow* m_order;
  RunResultView* m_result;
  PracticePanel* m_practice;
  DebriefView* m_debrief;
  BenchSounds* m_sounds;
  bool m_wasTooMuch = false, m_hasRested = false; ///< told to ears once
  RunChoices* m_choices;
  QTimer m_clock;
  std::optional<std::size_t> m_lotOf;            ///< the product whose lot stands in its field
  std::pair<const void*, std::size_t> m_tuned{}; ///< the stand-in, and the product whose scale it plays
  bool m_telling = false;                        ///< what changes in the book is what is told here
};

} // namespace butte::app
