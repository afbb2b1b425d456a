#pragma once
#include "edits/edits.h"
#include "edits/water_sources.h"
#include "water/report_row.h"
#include "water/water_plan.h"

#include <optional>

namespace butte::app {

/// A figure of a report as it was typed.
struct TypedReportFigure {
  exchange::Amount figure;
  bool below = false; ///< below the limit of detection that the figure states
};

enum class SourceTreatment { None, Membrane, Softener };

/// Edits of a formula's water, source by source. A water of one source keeps its figures at the top; one of
/// several keeps them in `parts`. These functions hide the difference.
class WaterEdits : public Edits {
public:
  using Edits::Edits;

  std::size_t count() const;

  std::string name(std::size_t source) const;
  void setName(std::size_t source, const QString& name);
  void setGuessing(std::size_t source, bool on);

  /// The figure stated under this key; nothing where it is not measured.
  std::optional<TypedReportFigure> reported(std::size_t source, const std::string& key) const;
  /// Empty digits: not measured. A leading "<" is a limit of detection.
  void setReported(std::size_t source, const std::string& key, const QString& digits, const std::string& unit,
                   bool merge = true);
  /// The same figure, stated as something else: SO4 for SO4-S.
  void setStatedAs(std::size_t source, const std::string& key, const std::string& as);
  /// The whole report, read otherwise.
  void reread(std::size_t source, const std::string& key, const std::vector<core::ReportRow>& rows);
  exchange::Amount conductivity(std::size_t source) const { return figure(pointer(source) + "/ec"); }
  void setConductivity(std::size_t source, const exchange::Amount& conductivity);
  std::string ph(std::size_t source) const { return figure(pointer(source) + "/ph").digits; }
  void setPh(std::size_t source, const QString& digits);
  /// False when it was refused.
  bool takePasted(std::size_t source, const core::TypedReport& report);

  void setTreatment(std::size_t source, SourceTreatment treatment);
  std::string membraneRejection(std::size_t source) const;
  std::string membraneRecovery(std::size_t source) const;
  std::string softenerLeaves(std::size_t source) const;
  void setMembraneRejection(std::size_t source, const QString& percent);
  void setMembraneRecovery(std::size_t source, const QString& percent);
  void setSoftenerLeaves(std::size_t source, const QString& meqPerL);
  /// No digits: as usual.
  void setIonRejection(std::size_t source, core::Nutrient nutrient, const QString& percent);

  void setShares(const std::vector<double>& percent, bool merge);
  /// One more source, with nothing known of it.
  void addSource(const QString& name);
  void remove(std::size_t source);
  /// Another water in this source's place; its share and treatment stay. False when it was refused.
  bool take(std::size_t source, const WaterOffer& water);
  bool takeReport(std::size_t source, const SourceReports& reports, const std::string& date);

  void setDrainUsedAgain(bool on);
  void setOnLeaves(bool on);

private:
  const exchange::Json& part(std::size_t source) const;
  std::string pointer(std::size_t source) const;
  void setIn(std::size_t source, const Deed& deed, const std::string& key, const exchange::Json& value,
             bool merge = true);
  void setInTreatment(std::size_t source, DeedCode code, const char* key, const QString& digits);
  bool put(const Deed& deed, const exchange::Json& water);
  bool replace(std::size_t source, const exchange::Json& with, const Deed& deed);
};

} // namespace butte::app
