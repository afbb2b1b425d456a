#pragma once
#include "fields/number_field.h"

#include <QWidget>
#include <functional>
#include <string>
#include <vector>

class QLabel;

namespace butte::app {

class FormulaEditor;
class UnitsShown;

/// What the parts of the Stocks station have in common: they are worked out only while they are seen, and
/// their fields keep what is typed in `dosing` of the formula, in the unit it was typed in.
class StockPanel : public QWidget {
  Q_OBJECT

public:
  StockPanel(FormulaEditor& editor, UnitsShown& units, QWidget* parent = nullptr);

signals:
  void message(const QString& words);

protected:
  enum class Kind { Plain, Volume, Conductivity, Temperature, Dose };

  /// Works out what is shown; called only while visible.
  virtual void refresh() = 0;

  /// A field for one place of `dosing`; may be emptied: then the usual figure counts. `otherwise` is what
  /// stands in an empty field, greyed.
  NumberField* field(const QString& name, const QString& id, const std::string& path, Kind kind, double least,
                     double most, std::function<QString()> otherwise = {});
  /// The unit that the fields of a kind are typed in now.
  QString unitName(Kind kind) const;
  /// A label that follows the unit of a kind.
  QLabel* unitLabel(Kind kind);
  static QLabel* words(const QString& text, bool soft = false);
  /// Long text that scrolls where it does not go in.
  static QWidget* scrolled(QLabel* text);
  /// A figure large enough to read from the bench.
  static QLabel* figureLabel(const QString& id);

  FormulaEditor& m_editor;
  UnitsShown& m_units;

private:
  struct Bound {
    NumberField* field;
    std::string path;
    Kind kind;
    std::function<QString()> otherwise;
  };
  void refreshFields();
  std::string unitKey(Kind kind) const;
  void keep(const Bound& bound, const QString& digits);

  std::vector<Bound> m_fields;
  std::vector<std::pair<QLabel*, Kind>> m_unitLabels;
};

} // namespace butte::app
