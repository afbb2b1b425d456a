#pragma once
#include "fields/number_field.h"
#include "formula/direct_mix.h"
#include "stations/stocks/ladder_picture.h"

#include <QWidget>

class QCheckBox;
class QLabel;

namespace butte::app {

class FormulaEditor;
class UnitsShown;

/// Salts straight into one vessel: how much of it stands there, how much water, every salt in its order with
/// what the meter should show after it, and what is to be known before the hand begins.
class DirectPanel : public QWidget {
  Q_OBJECT

public:
  DirectPanel(FormulaEditor& editor, UnitsShown& units, QWidget* parent = nullptr);

signals:
  void message(const QString& words);

private:
  QWidget* makeFields();
  NumberField* makeField(const QString& name, const QString& id, bool mayBeEmpty);
  QLabel* unitLabel(bool volume);
  void refresh();
  void refreshFields();
  LadderPicture::Shown shown(const core::DirectMix& mix) const;
  std::vector<LadderPicture::Level> levels(const core::DirectMix& mix) const;
  LadderPicture::Rung rung(const core::DirectStep& step, const core::WeighStep& weighed) const;
  QString notes(const core::DirectMix& mix) const;
  bool takesAcid(const core::DirectMix& mix) const;

  FormulaEditor& m_editor;
  UnitsShown& m_units;
  NumberField *m_vessel, *m_present, *m_reading;
  std::vector<std::pair<QLabel*, bool>> m_unitLabels; ///< true: of volumes
  QLabel *m_problem, *m_notes;
  QCheckBox* m_acidFirst;
  LadderPicture* m_ladder;
};

} // namespace butte::app
