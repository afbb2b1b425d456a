#pragma once
#include "document/tank_story.h"
#include "edits/tank_edits.h"

#include <QWidget>
#include <functional>
#include <map>
#include <optional>
#include <string>
#include <vector>

class QComboBox;
class QLabel;
class QPlainTextEdit;
class QPushButton;

namespace butte::app {

class IrrigationRow;
class NumberField;
class UnitsShown;
class WrappedLabel;

/// Analyses: of the tank, which tell its estimate what stands in it; and of drain or root zone, which lead to
/// a feed adjusted element by element.
class RootPanel : public QWidget {
  Q_OBJECT

public:
  RootPanel(TankEdits& edits, UnitsShown& units, QWidget* parent = nullptr);
  void show(const std::string& uid, const TankGiven& given, const TankStory& story,
            const std::map<std::string, book::Reading>& lastReadings);

  /// True once it is kept. The line's vessel is for them.
  std::function<bool(const book::TankLine& line)> onTold;
  std::function<bool(const TypedReadings& typed)> onRead;

signals:
  void message(const QString& words);
  void targetAsked(const butte::core::FeedContent& feed);

private:
  QWidget* makePaste();
  QWidget* makeDrained();
  QWidget* makeSteer();
  void pasted();
  void keep();
  void keepDrained();
  void showSideBySide();
  void showIrrigation();
  double drainShare() const;
  double lastOf(const char* quantity) const;
  void heard(const book::Trouble& trouble);
  void steer();
  std::optional<core::NutrientAmounts> drainFigures(std::vector<core::Nutrient>& named) const;
  TankEdits& m_edits;
  UnitsShown& m_units;
  std::string m_uid;
  IrrigationRow* m_irrigation;
  QPlainTextEdit* m_text;
  QComboBox *m_of, *m_school, *m_where;
  WrappedLabel *m_read, *m_steered, *m_sideBySide;
  QPushButton *m_keep, *m_target;
  NumberField *m_share, *m_strength, *m_given, *m_drained, *m_ec, *m_ph, *m_medium;
  QLabel *m_litres, *m_ecUnit, *m_mediumUnit;
  TankGiven m_known;
  TankStory m_story;
  std::map<std::string, book::Reading> m_last;
  std::vector<book::AnalysedFigure> m_figures; ///< as pasted
  core::FeedContent m_newFeed;
};

} // namespace butte::app
