#pragma once
#include "formula/other_shelf.h"

#include <QWidget>
#include <optional>
#include <string>

class QPushButton;

namespace butte::app {

class FormulaEditor;
class UnitsShown;
class WrappedLabel;

/// What if it has not arrived, what if it is to be used up first: the formula in hand solved again, and what
/// that costs and what suffers; done in the formula with one press.
class OtherwisePanel : public QWidget {
  Q_OBJECT

public:
  OtherwisePanel(FormulaEditor& editor, UnitsShown& units, QWidget* parent = nullptr);
  void show(const std::string& product, const QString& name, core::Mass left);

signals:
  void message(const QString& words);

private:
  enum class Asked { Nothing, Without, UseFirst };
  void ask(Asked asked);
  void without();
  void useFirst();
  void take();
  QString costWords(const core::OtherShelf& other) const;
  FormulaEditor& m_editor;
  UnitsShown& m_units;
  std::string m_product;
  QString m_name;
  core::Mass m_left, m_hold;
  Asked m_asked = Asked::Nothing;
  QPushButton *m_missing, *m_first, *m_take;
  WrappedLabel* m_words;
};

} // namespace butte::app
