#pragma once
#include "formula/acid_plan.h"
#include "paint/axes.h"

#include <QWidget>
#include <optional>
#include <tuple>

namespace butte::app {

class FormulaEditor;
class UnitsShown;

/// The water's titration curve: pH against the dose, just dosed and after standing in air, the aim with its
/// dose, and the grower's own readings on it.
class AcidCurve : public QWidget {
  Q_OBJECT

public:
  AcidCurve(FormulaEditor& editor, UnitsShown& units, QWidget* parent = nullptr);
  QSize sizeHint() const override { return {376, 240}; }
  /// What the picture says, for screen readers and tests.
  QString description() const { return m_description; }

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  void compute();
  void curves();
  void describe();
  const core::OwnTitration* readingsOfThisBottle() const;
  void paintFrame(QPainter& p) const;
  void paintCurve(QPainter& p, const std::vector<core::TitrationPoint>& curve, bool open) const;
  void paintAim(QPainter& p) const;
  void paintReadings(QPainter& p) const;
  void paintLegend(QPainter& p) const;
  /// Dose of a point in what the axis shows: mL (or g of a dry acid) per litre or gallon.
  double shownDose(double gramsPerLitre) const;

  FormulaEditor& m_editor;
  UnitsShown& m_units;
  std::vector<core::TitrationPoint> m_closed, m_open;
  Axis m_x, m_y;
  QString m_description;
  std::pair<double, double> m_aim; ///< pH and its dose

  /// What the curves follow from: some milliseconds of chemistry, not to be done again for a key that
  /// changes neither water nor acid.
  struct Asked {
    core::Solutes water, acid;
    double waterKgPerLitre = 0, celsius = 0, most = 0;
    bool operator==(const Asked&) const = default;
  };
  std::optional<Asked> m_asked;

  /// A reading on the curve.
  struct Dot {
    double dose = 0, ph = 0; ///< dose as the axis shows it
    bool outlier = false;
    bool operator==(const Dot&) const = default;
  };
  std::vector<Dot> dots() const;
  std::vector<Dot> m_dots;

  /// All that the picture is made of: a key that changes none of it repaints nothing.
  using Drawn = std::tuple<std::vector<core::TitrationPoint>, std::vector<core::TitrationPoint>,
                           std::pair<double, double>, double, std::vector<Dot>>;
};

} // namespace butte::app
