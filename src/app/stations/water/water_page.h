#pragma once
#include <QWidget>

class QComboBox;
class QLabel;
class QStackedWidget;

namespace butte::app {

class BlendBar;
class BookDesk;
class FormulaEditor;
class IonStacks;
class Judgement;
class NumberField;
class PastePanel;
class ReportTable;
class SourcePanel;
class UnitsShown;
struct Prompts;

/// The Water station: the sources as one bar, the report of the one in hand as typed, its ions facing each
/// other, whether it can be right and what it is good for, and the water that the formula gets.
class WaterPage : public QWidget {
  Q_OBJECT

public:
  WaterPage(FormulaEditor& editor, UnitsShown& units, BookDesk& desk, Prompts& prompts,
            QWidget* parent = nullptr);
  /// Takes a source in hand.
  void choosePart(std::size_t part);
  /// A report as text, PDF or picture, for the source in hand.
  void openReport(const QString& path);

signals:
  void message(const QString& words);

protected:
private:
  QWidget* makeResult();
  QWidget* makeWork();
  void refresh();
  void refreshBar();
  void refreshResult();
  void setAcid(const QString& left);

  FormulaEditor& m_editor;
  UnitsShown& m_units;
  std::size_t m_part = 0;
  BlendBar* m_bar;
  QStackedWidget* m_stack;
  SourcePanel* m_source;
  ReportTable* m_table;
  IonStacks* m_ions;
  Judgement* m_judgement;
  PastePanel* m_paste;
  QComboBox* m_acid;
  NumberField* m_acidLeft;
  QLabel *m_acidDose, *m_result;
  QWidget* m_acidRow = nullptr;
};

} // namespace butte::app
