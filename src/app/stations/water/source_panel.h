#pragma once
#include "edits/water_sources.h"

#include <QWidget>

class QCheckBox;
class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;

namespace butte::app {

class BookDesk;
class DriftChart;
class FormulaEditor;
class IonRejection;
class NumberField;

/// Where a source comes from (typed here, or a report of the book), what is done to it, and its share.
class SourcePanel : public QWidget {
  Q_OBJECT

public:
  SourcePanel(FormulaEditor& editor, BookDesk& desk, QWidget* parent = nullptr);
  void show(std::size_t part);

signals:
  void message(const QString& words);
  void pasteAsked();

private:
  QWidget* makeTop();
  QWidget* makeTreatment();
  QWidget* makeShare();
  void fillChoices();
  void choose(int index);
  void chooseReport(int index);
  void treatmentChosen(int index);
  void setShares(const std::vector<double>& shares, bool merge);
  void findShare();
  void refreshReports();
  void refreshTreatment();

  FormulaEditor& m_editor;
  BookDesk& m_desk;
  std::size_t m_part = 0;
  bool m_stale = true;              ///< the book's waters have changed since they were read
  std::vector<WaterOffer> m_offers; ///< parallel to the choices after the first
  std::optional<SourceReports> m_reports;
  std::string m_reportsUid;
  QComboBox *m_choice, *m_report, *m_treatment, *m_goal;
  QLineEdit* m_name;
  QLabel *m_newer, *m_treated;
  NumberField *m_rejection, *m_recovery, *m_hardnessLeft, *m_share, *m_limit;
  IonRejection* m_ionRow;
  QWidget *m_membraneRow, *m_softenerRow, *m_shareRow;
  QPushButton* m_remove;
  QCheckBox* m_estimate;
  DriftChart* m_drift;
};

} // namespace butte::app
