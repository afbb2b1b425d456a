#pragma once
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace butte::core {

/// What a person can do to a formula or a book in one go: name, key in files (for good), and what the values
/// are. The sentences stand in words/deed_words.cpp. Figures are digits with a decimal point; elements,
/// tanks' uses and the like are keys.
#define BUTTE_DEEDS(X)                                                                                       \
  X(Told, "told")                       /* a sentence kept by an older version: the sentence */              \
  X(FormulaNamed, "formula_named")      /* name */                                                           \
  X(CropNamed, "crop_named")            /* crop */                                                           \
  X(BatchVolume, "batch_volume")        /* figure, unit */                                                   \
  X(AimSet, "aim_set")                  /* way */                                                            \
  X(AtMostProducts, "at_most_products") /* figure */                                                         \
  X(AnyNumberOfProducts, "any_number_of_products")                                                           \
  X(WholeSteps, "whole_steps")                                                                               \
  X(WeightsAsComputed, "weights_as_computed")                                                                \
  X(AlkalinityLeft, "alkalinity_left") /* figure, meq/L */                                                   \
  X(NoAcidInRecipe, "no_acid_in_recipe")                                                                     \
  X(AcidToAimedPh, "acid_to_aimed_ph")                                                                       \
  X(TargetNamed, "target_named")        /* name */                                                           \
  X(TargetTaken, "target_taken")        /* name */                                                           \
  X(ElementTarget, "element_target")    /* element, figure, unit */                                          \
  X(ElementFree, "element_free")        /* element */                                                        \
  X(ElementUnit, "element_unit")        /* element, unit */                                                  \
  X(ElementBand, "element_band")        /* element, figure in % */                                           \
  X(NitrogenSplit, "nitrogen_split")    /* figure in mg/L, figure in % */                                    \
  X(TargetScaled, "target_scaled")      /* figure in mS/cm */                                                \
  X(StrengthTimes, "strength_times")    /* figure in % */                                                    \
  X(TargetOfSeason, "target_of_season") /* the rule's name */                                                \
  X(TargetBalanced, "target_balanced")                                                                       \
  X(RatioWished, "ratio_wished") /* "K : Ca" */                                                              \
  X(RatioDropped, "ratio_dropped")                                                                           \
  X(RatioValue, "ratio_value")   /* figure */                                                                \
  X(RatioBand, "ratio_band")     /* figure in % */                                                           \
  X(CapSet, "cap_set")           /* element, figure in mg/L */                                               \
  X(CapDropped, "cap_dropped")   /* element */                                                               \
  X(PhWanted, "ph_wanted")       /* figure */                                                                \
  X(CropAdded, "crop_added")     /* name */                                                                  \
  X(CropRemoved, "crop_removed") /* name */                                                                  \
  X(CropWeightsHeld, "crop_weights_held")                                                                    \
  X(ProductOn, "product_on")               /* name */                                                        \
  X(ProductOff, "product_off")             /* name */                                                        \
  X(ProductFree, "product_free")           /* name */                                                        \
  X(ProductHeld, "product_held")           /* name, figure, unit */                                          \
  X(ProductAdded, "product_added")         /* name */                                                        \
  X(ProductChanged, "product_changed")     /* name */                                                        \
  X(ProductRemoved, "product_removed")     /* name */                                                        \
  X(ProductAsInBook, "product_as_in_book") /* name */                                                        \
  X(StockOntoShelf, "stock_onto_shelf")    /* name */                                                        \
  X(ScaleReadability, "scale_readability") /* which, figure, unit */                                         \
  X(ScaleCapacity, "scale_capacity")       /* which, figure, unit */                                         \
  X(ScaleRemoved, "scale_removed")         /* which */                                                       \
  X(StageAdded, "stage_added")             /* name */                                                        \
  X(StageInHand, "stage_in_hand")          /* name */                                                        \
  X(StageNamed, "stage_named")             /* name */                                                        \
  X(StageRemoved, "stage_removed")         /* name */                                                        \
  X(SpoonsUsed, "spoons_used")                                                                               \
  X(NoSpoons, "no_spoons")                                                                                   \
  X(AcidFirst, "acid_first")                                                                                 \
  X(AcidLast, "acid_last")                                                                                   \
  X(WaterNamed, "water_named")                  /* name */                                                   \
  X(WaterTaken, "water_taken")                  /* name */                                                   \
  X(WaterReportTaken, "water_report_taken")     /* name, date */                                             \
  X(WaterWorstTaken, "water_worst_taken")       /* name */                                                   \
  X(WaterFigure, "water_figure")                /* what, figure, unit */                                     \
  X(WaterFigureBelow, "water_figure_below")     /* what, figure, unit */                                     \
  X(WaterFigureUnknown, "water_figure_unknown") /* what */                                                   \
  X(WaterFigureForm, "water_figure_form")       /* what */                                                   \
  X(WaterReread, "water_reread")                /* what is read otherwise */                                 \
  X(WaterRestGuessed, "water_rest_guessed")                                                                  \
  X(WaterNotGuessed, "water_not_guessed")                                                                    \
  X(WaterConductivity, "water_conductivity") /* figure, unit */                                              \
  X(WaterConductivityUnknown, "water_conductivity_unknown")                                                  \
  X(WaterPh, "water_ph") /* figure */                                                                        \
  X(WaterPhUnknown, "water_ph_unknown")                                                                      \
  X(TreatmentNone, "treatment_none")                                                                         \
  X(TreatmentMembrane, "treatment_membrane")                                                                 \
  X(TreatmentSoftener, "treatment_softener")                                                                 \
  X(SoftenerLeaves, "softener_leaves")           /* figure in meq/L */                                       \
  X(MembraneRejects, "membrane_rejects")         /* figure in % */                                           \
  X(MembraneRecovers, "membrane_recovers")       /* figure in % */                                           \
  X(IonRejected, "ion_rejected")                 /* element, figure in % */                                  \
  X(IonRejectedAsUsual, "ion_rejected_as_usual") /* element */                                               \
  X(BlendShares, "blend_shares")                 /* figures in %, joined by " : " */                         \
  X(SourceAdded, "source_added")                                                                             \
  X(SourceRemoved, "source_removed") /* name */                                                              \
  X(ReportPasted, "report_pasted")                                                                           \
  X(AcidBeforeUse, "acid_before_use") /* name, figure in meq/L */                                            \
  X(NoAcidBeforeUse, "no_acid_before_use")                                                                   \
  X(DrainToWaste, "drain_to_waste")                                                                          \
  X(DrainUsedAgain, "drain_used_again")                                                                      \
  X(RootsWatered, "roots_watered")                                                                           \
  X(LeavesWatered, "leaves_watered")                                                                         \
  X(AcidAim, "acid_aim")       /* figure */                                                                  \
  X(AcidChosen, "acid_chosen") /* name */                                                                    \
  X(RecipeAcid, "recipe_acid") /* name */                                                                    \
  X(TitrationUsed, "titration_used")                                                                         \
  X(TitrationNotUsed, "titration_not_used")                                                                  \
  X(TitrationSample, "titration_sample")     /* figure, unit */                                              \
  X(TitrationSeeks, "titration_seeks")       /* what */                                                      \
  X(TitrationReadings, "titration_readings") /* count */                                                     \
  X(TankNamed, "tank_named")                 /* name */                                                      \
  X(TankVolume, "tank_volume")               /* figure, unit */                                              \
  X(TankOwnRatio, "tank_own_ratio")          /* figure */                                                    \
  X(TankRatioOfAll, "tank_ratio_of_all")                                                                     \
  X(TankUsed, "tank_used") /* use */                                                                         \
  X(TankMadeWithPure, "tank_made_with_pure")                                                                 \
  X(TankMadeWithBlend, "tank_made_with_blend")                                                               \
  X(TankMadeWithSource, "tank_made_with_source") /* name */                                                  \
  X(TankVessel, "tank_vessel")                                                                               \
  X(TankVesselUnknown, "tank_vessel_unknown")                                                                \
  X(TankAdded, "tank_added")                                                                                 \
  X(TankRemoved, "tank_removed")                                                                             \
  X(LettersSwapped, "letters_swapped")                                                                       \
  X(MovedToTank, "moved_to_tank")          /* product, tank */                                               \
  X(HalfMovedToTank, "half_moved_to_tank") /* product, tank */                                               \
  X(BackToRules, "back_to_rules")          /* product */                                                     \
  X(StraightIntoVessel, "straight_into_vessel")                                                              \
  X(ThroughStocks, "through_stocks")                                                                         \
  X(VesselHoldsAlready, "vessel_holds_already") /* figure, unit */                                           \
  X(VesselHeldReads, "vessel_held_reads")       /* figure, unit */                                           \
  X(VesselIsEmpty, "vessel_is_empty")                                                                        \
  X(VesselHeldIsFull, "vessel_held_is_full_strength")                                                        \
  X(StockStrength, "stock_strength")   /* figure */                                                          \
  X(StockRatio, "stock_ratio")         /* figure: 1 to so much */                                            \
  X(DilutionStated, "dilution_stated") /* ratio form */                                                      \
  X(ColdestTank, "coldest_tank")       /* figure in degC */                                                  \
  X(StockMargin, "stock_margin")       /* figure in % */                                                     \
  X(StocksAs, "stocks_as")             /* name of the plan */                                                \
  X(DosingFigure, "dosing_figure")     /* place, figure, unit */                                             \
  X(DosingAsUsual, "dosing_as_usual")  /* place */                                                           \
  X(DosingOn, "dosing_on")             /* place */                                                           \
  X(DosingOff, "dosing_off")           /* place */                                                           \
  X(DosedBy, "dosed_by")               /* device */                                                          \
  X(MixedOnDropped, "mixed_on_dropped")                                                                      \
  X(MixedOn, "mixed_on")     /* date */                                                                      \
  X(SecondSet, "second_set") /* name */                                                                      \
  X(NoSecondSet, "no_second_set")                                                                            \
  X(BatchKept, "batch_kept")               /* formula */                                                     \
  X(Weighed, "weighed")                    /* product, figure, unit */                                       \
  X(WeighedNothing, "weighed_nothing")     /* product */                                                     \
  X(LotNamed, "lot_named")                 /* product, lot */                                                \
  X(BatchEcRead, "batch_ec_read")          /* figure, unit */                                                \
  X(BatchPhRead, "batch_ph_read")          /* figure */                                                      \
  X(ReadingTakenOff, "reading_taken_off")  /* "ec" or "ph" */                                                \
  X(BatchMixedBy, "batch_mixed_by")        /* initials */                                                    \
  X(BatchNote, "batch_note")               /* text */                                                        \
  X(FactTyped, "fact_typed")               /* thing, fact, text */                                           \
  X(FactTakenAway, "fact_taken_away")      /* thing, fact */                                                 \
  X(ReadingCorrected, "reading_corrected") /* quantity, vessel, figure, unit */                              \
  X(ReadingKept, "reading_kept")           /* quantity, vessel */                                            \
  X(ThingMade, "thing_made")               /* name */                                                        \
  X(ThingKept, "thing_kept")               /* name */                                                        \
  X(ThingKeptAnew, "thing_kept_anew")      /* name */                                                        \
  X(ThingNamed, "thing_named")             /* name */                                                        \
  X(IntoBin, "into_bin")                   /* name */                                                        \
  X(OutOfBin, "out_of_bin")                /* name */                                                        \
  X(BackToVersion, "back_to_version")      /* number */                                                      \
  X(FirstFormula, "first_formula")                                                                           \
  X(FormulaMade, "formula_made")              /* name */                                                     \
  X(FormulaCopied, "formula_copied")          /* name */                                                     \
  X(FormulaOpened, "formula_opened")          /* name: brought in from a file */                             \
  X(RunBegun, "run_begun")                    /* name */                                                     \
  X(RunTold, "run_told")                      /* name */                                                     \
  X(ScaleChecked, "scale_checked")            /* scale */                                                    \
  X(VesselFact, "vessel_fact")                /* vessel, fact, text or figure with its unit */               \
  X(LoggerSet, "logger_set")                  /* name */                                                     \
  X(TankTold, "tank_told")                    /* vessel, what was done, amount */                            \
  X(LotCame, "lot_came")                      /* product, bags, figure, unit of a bag */                     \
  X(PriceNoted, "price_noted")                /* product, 0, figure, unit of a bag */                        \
  X(LotChanged, "lot_changed")                /* product */                                                  \
  X(LotCounted, "lot_counted")                /* product, figure, unit */                                    \
  X(LotWasted, "lot_wasted")                  /* product, figure, unit */                                    \
  X(LotOpened, "lot_opened")                  /* product */                                                  \
  X(LotDried, "lot_dried")                    /* product, figure, unit */                                    \
  X(ChoreKept, "chore_kept")                  /* chore */                                                    \
  X(ChoreDone, "chore_done")                  /* chore */                                                    \
  X(ChoreLeftOut, "chore_left_out")           /* chore */                                                    \
  X(ChoreMoved, "chore_moved")                /* chore, day */                                               \
  X(ChoresBroughtIn, "chores_brought_in")     /* count */                                                    \
  X(LayoutKept, "layout_kept")                /* name */                                                     \
  X(RowsBroughtIn, "rows_brought_in")         /* count, kind, file */                                        \
  X(ReadingsBroughtIn, "readings_brought_in") /* count, file */                                              \
  X(BookMade, "book_made")

enum class DeedCode {
#define BUTTE_DEED_NAME(name, key) name,
  BUTTE_DEEDS(BUTTE_DEED_NAME)
#undef BUTTE_DEED_NAME
};
inline constexpr int deedCount = 0
#define BUTTE_DEED_ONE(name, key) +1
    BUTTE_DEEDS(BUTTE_DEED_ONE)
#undef BUTTE_DEED_ONE
    ;

/// "product_held": as it stands in files.
std::string_view deedKey(DeedCode code);
std::optional<DeedCode> deedFromKey(std::string_view key);

/// What was done, not yet in words: so that a step of undo reads in the language and with the decimal mark of
/// whoever looks at it.
struct Deed {
  DeedCode code = DeedCode::Told;
  std::vector<std::string> values;
  bool operator==(const Deed&) const = default;
};

/// One line for a store: a JSON list of the key and the values. A sentence of an older version stays as it
/// is.
std::string deedLine(const Deed& deed);
Deed deedFromLine(std::string_view line);

} // namespace butte::core
