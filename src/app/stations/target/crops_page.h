#pragma once
#include "document/background.h"
#include "solve/many_crops.h"

#include <QWidget>
#include <optional>

class QCheckBox;
class QLabel;
class QVBoxLayout;

namespace butte::app {

class BookDesk;
class CropsMatrix;
class FillingCombo;
class FormulaEditor;
class UnitsShown;

/// One set of stock tanks for several crops: how strong each takes it, the one salt that may be added for it,
/// and what it gives up against a recipe of its own.
class CropsPage : public QWidget {
  Q_OBJECT
public:
  CropsPage(FormulaEditor& editor, UnitsShown& units, BookDesk& desk, QWidget* parent = nullptr);
  const std::optional<core::ManyCropsAnswer>& answer() const { return m_answer; }

signals:
  void message(const QString& words);
  void done();

protected:
private:
  void fillChoice();
  void addChosen(int index);
  void formulaChanged();
  void showAnswer();
  void removeCrop(std::size_t index);
  void useWeights();

  FormulaEditor& m_editor;
  UnitsShown& m_units;
  BookDesk& m_desk;
  Background m_background;
  FillingCombo* m_choice;
  QCheckBox* m_corrections;
  QLabel *m_words, *m_stocks;
  CropsMatrix* m_matrix;
  std::optional<core::ManyCropsAnswer> m_answer;
};

} // namespace butte::app
