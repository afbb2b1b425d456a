#pragma once
#include "bench/weigh_plan.h"
#include "book/scale_check.h"
#include "services/device_desk.h"

#include <QDialog>
#include <vector>

class QComboBox;
class QLabel;
class QPushButton;

namespace butte::app {

class BookDesk;
class FormulaEditor;
class NumberField;
class UnitsShown;

/// How far a scale was off at each check, over time; zero and one step of its display as a band.
class ScaleDrift : public QWidget {
public:
  explicit ScaleDrift(const UnitsShown& units, QWidget* parent = nullptr);
  void show(std::vector<book::ScaleCheck> checks, core::Mass step);

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  const UnitsShown& m_units;
  std::vector<book::ScaleCheck> m_checks; ///< the newest first
  core::Mass m_step;
};

/// A known weight on a scale: what it should show, what it shows, and how it went at the checks before.
class ScaleCheckDialog : public QDialog {
  Q_OBJECT

public:
  ScaleCheckDialog(BookDesk& desk, const FormulaEditor& editor, const UnitsShown& units, DeviceDesk& devices,
                   QWidget* parent = nullptr);

private:
  std::string scale() const;
  std::string unit() const;
  core::Mass step() const;
  void refresh();
  void followScale();
  void keep();

  BookDesk& m_desk;
  const FormulaEditor& m_editor;
  const UnitsShown& m_units;
  DeviceDesk& m_devices;
  QComboBox* m_scale;
  NumberField *m_known, *m_shown;
  QLabel *m_unit, *m_live, *m_verdict, *m_list;
  ScaleDrift* m_drift;
};

/// "off by +0.8 g (+0.08 %)", and whether that is more than a step of its display.
QString scaleErrorWords(const book::ScaleCheck& check, core::Mass step, const UnitsShown& units);

/// What is known of a scale's last check.
QString lastCheckWords(BookDesk& desk, const std::vector<core::Scale>& scales, const std::string& scale,
                       const UnitsShown& units);

} // namespace butte::app
