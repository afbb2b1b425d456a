#pragma once
#include "edits/bench_edits.h"

#include <QTimer>
#include <QWidget>
#include <optional>

class QLabel;
class QLineEdit;
class QPushButton;

namespace butte::app {

class NumberField;
class Prompts;
class RunChoices;
class RunGauge;
class UnitsShown;

/// Weighing by the bench, one thing at a time: what to do, how much, in figures for a metre's distance; one
/// key or one large button goes on. All that is told is in the book before the next thing stands here.
class RunPage : public QWidget {
  Q_OBJECT

public:
  RunPage(BookDesk& desk, UnitsShown& units, Prompts& prompts, QWidget* parent = nullptr);
  const BenchEdits& run() const { return m_run; }
  void begin(const FormulaEditor& editor);
  void goOn(const book::Ref& ref);

signals:
  void message(const QString& words);
  void left();
  void finished(const butte::book::Ref& batch);

protected:
  void keyPressEvent(QKeyEvent* event) override;

private:
  QWidget* makeFields();
  QWidget* makeFoot();
  void refresh();
  void refreshFields();
  void refreshLot();
  void refreshTime();
  void next();
  void tell(const core::RunDeed& deed);
  void weigh();
  void measure();
  void strike();
  void skip();
  void handOver();
  void finish();
  void endHere();
  void onBookChanged(const std::vector<book::Ref>& refs);
  std::size_t product() const;
  std::string scaleUnit() const;
  QString cautions() const;
  void told(const book::Trouble& trouble);

  BookDesk& m_desk;
  BenchEdits m_run;
  UnitsShown& m_units;
  Prompts& m_prompts;
  QLabel *m_where, *m_heading, *m_figure, *m_detail, *m_caution, *m_log, *m_result;
  RunGauge* m_gauge;
  NumberField *m_mass, *m_volume, *m_ec, *m_ph;
  QLabel *m_massUnit, *m_volumeUnit, *m_ecUnit;
  QLineEdit* m_lot;
  QWidget *m_massRow, *m_volumeRow, *m_readRow;
  QPushButton *m_next, *m_skip;
  RunChoices* m_choices;
  QTimer m_clock;
  std::optional<std::size_t> m_lotOf; ///< the product whose lot stands in its field
  bool m_telling = false;             ///< what changes in the book is what is told here
};

} // namespace butte::app
