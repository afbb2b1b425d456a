#pragma once
#include "amount.h"
#include "measures.h"
#include "units/quantity.h"

#include <QFrame>

class QCheckBox;
class QLabel;
class QToolButton;

namespace butte::app {

class FittedLabel;
class FormulaEditor;
class NumberField;
class UnitsShown;

/// One product of the shelf: on or off, its colour, its weight (typing one holds it), hold or free.
class ProductRow : public QFrame {
  Q_OBJECT

public:
  ProductRow(FormulaEditor& editor, UnitsShown& units, std::string id, QWidget* parent = nullptr);
  const std::string& id() const { return m_id; }
  void refresh();
  void setLit(bool lit);

signals:
  void lit(const std::string& id);
  void detailsAsked(const std::string& id);
  void message(const QString& words);

protected:
  void paintEvent(QPaintEvent* event) override;
  void enterEvent(QEnterEvent* event) override;
  void leaveEvent(QEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void contextMenuEvent(QContextMenuEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

private:
  void setOn(bool on);
  void setHeld(bool held);
  void takeOff();
  static QString shownHeld(const exchange::Amount& held);
  std::string weightDigits(core::Mass mass) const;
  void weightTyped(const QString& digits);
  QString weightOfDose(const QString& text) const;
  QString carries() const;
  QString tooCoarse() const;
  QString unitFor(core::Mass mass) const;
  void giveRoom();

  FormulaEditor& m_editor;
  UnitsShown& m_units;
  std::string m_id;
  QString m_rowUnit;            ///< what its weight is in: "g", "oz", "lb"
  words::MassShown m_rowMass{}; ///< what was chosen then
  QCheckBox* m_on;
  FittedLabel* m_name;
  QLabel *m_carries, *m_unit;
  NumberField* m_weight;
  QToolButton* m_hold;
  bool m_lit = false;
  bool m_quiet = true; ///< the line under its name tells nothing that a hand needs
};

} // namespace butte::app
