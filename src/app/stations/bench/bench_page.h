#pragma once
#include <QTimer>
#include <QWidget>
#include <vector>

class QCheckBox;
class QComboBox;
class QLabel;
class QTextBrowser;

namespace butte::app {

class FormulaEditor;
class NumberField;
class UnitsShown;

/// The bench sheet before it is printed: as it will stand on paper, for the scales at hand.
class BenchPage : public QWidget {
  Q_OBJECT

public:
  BenchPage(FormulaEditor& editor, UnitsShown& units, QWidget* parent = nullptr);

signals:
  void message(const QString& words);
  void pdfAsked();
  void printAsked();
  void mixedAsked();
  void runAsked();
  void bagsAsked();
  void practiceAsked();

protected:
  void showEvent(QShowEvent* event) override;

private:
  QWidget* makeScaleRow(std::size_t index);
  NumberField* scaleField(std::size_t index, bool readability, const QString& name);
  std::string unitOf(std::size_t scale) const;
  void refresh();
  void layOut();

  FormulaEditor& m_editor;
  UnitsShown& m_units;
  QCheckBox* m_spoons;
  QTextBrowser* m_sheet;
  QString m_html; ///< as laid out
  QTimer m_rest;
  struct ScaleFields {
    NumberField *readability = nullptr, *capacity = nullptr;
    QComboBox* unit = nullptr; ///< what its display shows
    QLabel* unitName = nullptr;
  };
  std::vector<ScaleFields> m_scales;
};

} // namespace butte::app
