#include "command_line.h"

#include "base/decimal.h"
#include "base/read_file.h"
#include "batch.h"
#include "book_command.h"
#include "verbs.h"
#include "words.h"

#include <CLI/CLI.hpp>
#include <fstream>
#include <iostream>
#include <iterator>
#include <unistd.h>

namespace butte::cli {
namespace {

using core::Problem;
using core::ProblemCode;
using core::Result;

constexpr std::size_t largestInput = 16u << 20;

Result<std::string> readInput(const std::string& file) {
  return file == "-" ? core::readWholeStream(std::cin, largestInput)
                     : core::readWholeFile(file, largestInput);
}

int refuse(const Problem& problem) {
  std::cerr << words::problemLine(problem) << '\n';
  return 2;
}

int print(const Result<Outcome>& outcome) {
  if (!outcome) return refuse(outcome.problem());
  // Text that is not UTF-8 (a product's id, say) is replaced rather than thrown about.
  std::cout << outcome->json.dump(2, ' ', false, exchange::Json::error_handler_t::replace) << '\n';
  std::cout.flush();
  return std::cout ? outcome->exitCode : refuse({ProblemCode::BadFile, "output", {"can't be written"}});
}

using FileVerb = Result<Outcome> (*)(const exchange::ScriptInput&);

int runFileVerb(FileVerb verb, const std::string& file) {
  const auto text = readInput(file);
  if (!text) return refuse(text.problem());
  const auto input = exchange::readScriptInput(*text);
  if (!input) return refuse(input.problem());
  return print(verb(*input));
}

template <class Script>
int runOwnVerb(Result<Script> (*read)(std::string_view), Result<Outcome> (*verb)(const Script&),
               const std::string& file) {
  const auto text = readInput(file);
  if (!text) return refuse(text.problem());
  const auto script = read(*text);
  if (!script) return refuse(script.problem());
  return print(verb(*script));
}

int runLabelVerb(const std::string& file) {
  const auto text = readInput(file);
  return text ? print(label(*text)) : refuse(text.problem());
}

int runScaleVerb(const std::string& file, const std::string& pattern) {
  const auto text = readInput(file);
  return text ? print(scaleLines(*text, pattern)) : refuse(text.problem());
}

/// A bare number with the units it is from and to; else a quantity as typed, with its units.
Result<Outcome> runConvert(std::vector<std::string> asked) {
  const bool plain = core::parseDecimal(asked.front()).has_value();
  asked.resize(4);
  if (plain && !asked[2].empty()) return convert(asked[0], asked[1], asked[2], asked[3]);
  if (!asked[3].empty()) return problemAt(ProblemCode::NotANumber, "VALUE", {asked[0]});
  return convertTyped(asked[0], asked[1], asked[2]);
}

int runBatch(const std::string& file, const std::string& out, bool progress) {
  const auto text = readInput(file);
  if (!text) return refuse(text.problem());
  const auto input = exchange::readScriptInput(*text);
  if (!input) return refuse(input.problem());
  const auto lines = solveBatch(*input, out, progress || isatty(STDERR_FILENO) ? &std::cerr : nullptr);
  if (!lines) return refuse(lines.problem());
  return print(Result<Outcome>(Outcome{exchange::Json{{"lines", *lines}, {"file", out}}, 0}));
}

constexpr const char* convertForms =
    "convert VALUE FROM TO [SUBSTANCE]   12 gpg_CaCO3 dH; 3 meq/L mg/L Ca; 38 P2O5 P\n"
    "convert TEXT TO [SUBSTANCE]         \"1 lb 3 oz\" g; \"2 1/2 gal\" L; 1:100 mL/L; \"900 ppm500\" "
    "mS/cm\n";
constexpr const char* labelKeys = "FILE is the label as text, as it stands on the bag.\n";
constexpr const char* sharedKeys =
    "Keys of the JSON object:\n"
    "  water {ph, temperature_c, ec_ms_per_cm, analysis_mg_per_l {Ca, SO4, HCO3, alkalinity_as_CaCO3, ...}}\n"
    "  products [{id, name, formula + purity_percent | label_percent, liquid, density_kg_per_l, "
    "price_per_kg,\n"
    "             min_g, max_g, tank}]\n"
    "  weights_g {id: grams in volume_l of finished feed}   volume_l (1)\n";
constexpr const char* solveKeys =
    "  target_mg_per_l   tolerance_percent (5)   weight (1)   max_mg_per_l\n"
    "  objective closest | cheapest   require best | bands | bands_first   locked [id]\n"
    "  alkalinity_left_meq_per_l   ratios [{above [K], below [Ca, Mg], value, basis mass | moles | "
    "equivalents,\n"
    "                                      tolerance_percent (10), weight}]\n";
constexpr const char* modeKeys =
    "  products_from shelf | catalogue   at_most_products   fewest_products   mends (what would help)\n"
    "  round_to_g {default, id}: weights in the scale's steps, chosen together\n"
    "  errors {content_percent, moisture_percent, weighing_g {default, id}, volume_percent, dosing_percent,\n"
    "          water_percent}: the +- of every element and of the EC\n"
    "  direct {present_l (0), ec_now, acid last | first}: straight into one vessel of volume_l, step by "
    "step\n"
    "  mode audit: what weights_g give against the target, and which line is wrong\n"
    "  crops [{name, target_mg_per_l, tolerance_percent, weight}]   corrections: one set of stocks for all\n"
    "With --out FILE.csv: targets [as crops] x waters [{name, ph, analysis_mg_per_l ...}], a line each.\n";
constexpr const char* stockKeys =
    "  stock {factor (100), temperature_c (20), margin_percent (10),\n"
    "         tanks {name: {volume_l, use salts | traces | acid | alone, factor (its own),\n"
    "                       made_with pure | source | a water}},\n"
    "         nights_c [5, 10, 15], dissolve {cold_c, hot_c, wanted_c, first_share},\n"
    "         scales [{readability_g, capacity_g}], feed_per_day_l, fill_days (7), season_days}\n"
    "  sets {name: {target_mg_per_l | weights_g, stock, ...}}: several sets of tanks from one water\n";
constexpr const char* doseKeys =
    "Any of these, each answered by itself:\n"
    "  reservoir {volume_l, ec_now, ec_water, ec_target, ec_full_strength, stock_ml_per_l, cautious}\n"
    "            by a straight line; or, with products and weights_g or a target, by the chemistry:\n"
    "            {finished_l, present_l, ec_now, ec_target, last_water_l, cautious}, acid and target_ph\n"
    "  readings [{ml_per_l, ec}]: base and slope of what was read\n"
    "  compare {ec_expected, ec_read}: likely causes, each with its size\n"
    "  draw_down {drawn_l {tank: litres}, of_plan {tank: its salts over the planned}, feed_l, ec_setpoint}:\n"
    "    which side gives too little, and what the plants get of it\n"
    "  vessel {shape round | rectangular | tapered, across_cm, along_cm, height_cm, line_for_l, level_cm}\n"
    "  ratio {one_to | percent | ml_per_l | ml_per_gal_us | ml_per_gal_imp | floz_per_gal_us}\n"
    "  injector {drawn_l, feed_l, series_ml_per_l [..]}   pump {ml_per_run, ml_per_minute, feed_per_hour_l}\n"
    "EC is in mS/cm. Tanks are those of stock (A and B).\n";
constexpr const char* equilibriumKeys =
    "  temperature_c (20)   ph (else from the alkalinity)   co2 closed | open   pco2_atm (0.00042)\n";
constexpr const char* acidKeys =
    "  acid {formula + purity_percent | label_percent, liquid, density_kg_per_l}   target_ph\n"
    "  temperature_c (20)   co2 closed | open   pco2_atm (0.00042)\n";
constexpr const char* weighKeys =
    "  scale {readability_g, capacity_g, unit}: what the weights are weighed on\n";
constexpr const char* runKeys =
    "  run {vessels [{name, volume_l, factor (1), weights_g}], else one of volume_l with weights_g;\n"
    "       events [{at_s, by, did, ...}]}; did: poured {vessel, volume_l}, weighed {product, g, lot, "
    "typed},\n"
    "       taken_out {product, g}, tipped, clear, skipped, accepted {product, vessel}, rescaled {ratio},\n"
    "       substituted {product, vessel, by, g}, topped_up {vessel, volume_l},\n"
    "       read {vessel, ec_ms_per_cm, ph}, prepared, discarded {vessel},\n"
    "       paused, resumed, handed_over "
    "{to},\n"
    "       struck {event}, finished}\n";
constexpr const char* scaleKeys =
    "FILE is lines as a scale sends them. A scale of one's own: text that stands in every line, a blank for "
    "any blanks, and\n"
    "  {weight}  {weight:kg}  {unit}  {stable:A|B}  {any}     --pattern 'W {stable:S|M} {weight} {unit}'\n";
constexpr const char* waterKeys =
    "FILE is a laboratory's table (text, CSV), or a JSON object:\n"
    "  water {name, ph, temperature_c, ec_ms_per_cm, analysis_mg_per_l {...}, rows [{key, value, unit, "
    "below}],\n"
    "         estimate, treatment {kind reverse_osmosis, rejection_percent, recovery_percent,\n"
    "         rejection_of_percent {B: 60}} | {kind softener, hardness_left_meq_per_l}}\n"
    "  waters [the same with share]   acid_first {product, alkalinity_left_meq_per_l}\n"
    "  system open | recirculating   watering roots | overhead   crop   target_mg_per_l\n"
    "  find_share {of, alkalinity_as_CaCO3_mg_per_l | ec_ms_per_cm | Na_mg_per_l | Cl_mg_per_l | "
    "Ca_mg_per_l}\n";

constexpr const char* balanceKeys =
    "  vessel {volume_l, full_l, temperature_c (20)}\n"
    "  start, refill {elements_mg_per_l {N_NO3, ...}, alkalinity_meq_per_l}; else water, products, "
    "weights_g\n"
    "  refill_when daily | never | {below_l}   days (30)\n"
    "  transpiration_l_per_day   evaporation_l_per_day   rain_l_per_day   drain_l_per_day\n"
    "  crop with climate cool | warm, or uptake_mmol_per_l {..} and uptake_of_concentration {Na, Cl}\n"
    "  co2 open | closed   pco2_atm (0.00042)   precipitate (true)\n"
    "  log CSV (its text, or a file): day or at, did read | filled | poured | drained | emptied | rained |\n"
    "      dissolved | analysed, liquid, litres, product, grams, ec_ms_per_cm, ph, level_l, element columns\n"
    "  estimate: readings correct the state, each element with low and high (9 in 10)\n";
constexpr const char* steerKeys =
    "  feed_mg_per_l   drain_mg_per_l   root_zone_target_mg_per_l   school classes | balance\n"
    "  drain_percent (30), or given_l with drained_l, or feed_ec with drain_ec\n";

/// The exit code where the words end the program: help was asked for, or they are wrong.
std::optional<int> parse(CLI::App& app, int argc, char** argv) {
  try {
    app.parse(argc, argv);
    return std::nullopt;
  } catch (const CLI::CallForHelp& help) {
    return app.exit(help);
  } catch (const CLI::CallForAllHelp& help) {
    return app.exit(help);
  } catch (const CLI::ParseError& error) {
    std::string what = error.what();
    std::replace(what.begin(), what.end(), '\n', ' ');
    std::cerr << "arguments: " << what << '\n';
    return 2;
  }
}

} // namespace

int runCommandLine(int argc, char** argv) {
  CLI::App app("butte-cli: nutrient solution from dry salts, for scripts. Prints one JSON object.\n"
               "Exit 0: an answer. Exit 2: bad input, named on standard error. Exit 3: no answer exists.");
  app.require_subcommand(1);
  std::string formula, file = "-";
  std::vector<std::string> asked;

  auto* compositionVerb = app.add_subcommand("composition", "Molar mass and mass fractions of a formula");
  compositionVerb->add_option("FORMULA", formula, "such as Ca(NO3)2.4H2O")->required();

  auto* convertVerb = app.add_subcommand("convert", "Convert between units, or between oxide and element");
  convertVerb->footer(convertForms);
  convertVerb->add_option("WORDS", asked, "what to convert, and to what")->required()->expected(2, 4);

  const auto fileVerb = [&](const char* name, const char* help, const std::string& keys) {
    auto* verb = app.add_subcommand(name, help);
    verb->add_option("FILE", file, "JSON file, or - for standard input");
    verb->footer(keys);
    return verb;
  };
  auto* labelVerb = fileVerb("label", "What a fertilizer's label says", labelKeys);
  auto* mixVerb = fileVerb("mix", "What water and weights give", sharedKeys);
  auto* solveVerb = fileVerb("solve", "Weights for a target", std::string(sharedKeys) + solveKeys + modeKeys);
  std::string batchFile;
  bool progress = false;
  solveVerb->add_option("--out", batchFile, "solve every target with every water into this CSV file");
  solveVerb->add_flag("--progress", progress,
                      "draw the progress bar even where standard error is no terminal");
  auto* stockVerb =
      fileVerb("stock", "Stock tanks for a formula", std::string(sharedKeys) + solveKeys + stockKeys);
  auto* doseVerb =
      fileVerb("dose", "Doses, readings, vessels and dosers", std::string(doseKeys) + sharedKeys + stockKeys);
  auto* equilibriumVerb = fileVerb("equilibrium", "pH, species and solids of a mixture",
                                   std::string(sharedKeys) + equilibriumKeys);
  auto* acidVerb = fileVerb("acid", "Acid or base for a pH", std::string(sharedKeys) + acidKeys);
  auto* waterVerb = fileVerb("water", "Normal form, checks, verdicts and blend of water", waterKeys);

  auto* balanceVerb = fileVerb("balance", "A tank day by day: what the plants leave behind", balanceKeys);
  auto* steerVerb = fileVerb("steer", "A feed adjusted to drain or root zone", steerKeys);

  auto* weighVerb = fileVerb("weigh", "Weights in the steps of a scale", std::string(sharedKeys) + weighKeys);
  auto* runVerb =
      fileVerb("run", "Where a run at the bench stands", std::string(sharedKeys) + weighKeys + runKeys);
  auto* scaleVerb = fileVerb("scale-lines", "What the lines of a scale say", scaleKeys);
  std::string pattern;
  scaleVerb->add_option("--pattern", pattern, "how a scale of one's own writes its lines");

  const auto bookVerb = addBookVerbs(app);

  if (const auto ended = parse(app, argc, argv)) return *ended;
  if (const auto outcome = bookVerb()) return print(*outcome);
  if (*compositionVerb) return print(composition(formula));
  if (*convertVerb) return print(runConvert(asked));
  if (*labelVerb) return runLabelVerb(file);
  if (*mixVerb) return runFileVerb(mix, file);
  if (*solveVerb && !batchFile.empty()) return runBatch(file, batchFile, progress);
  if (*solveVerb) return runFileVerb(solve, file);
  if (*doseVerb) return runFileVerb(dose, file);
  if (*equilibriumVerb) return runFileVerb(equilibrium, file);
  if (*acidVerb) return runFileVerb(acid, file);
  if (*waterVerb) return runOwnVerb(exchange::readWaterScript, water, file);
  if (*balanceVerb) return runOwnVerb(exchange::readBalanceScript, balance, file);
  if (*steerVerb) return runOwnVerb(exchange::readSteerScript, steer, file);
  if (*scaleVerb) return runScaleVerb(file, pattern);
  if (*runVerb) return runFileVerb(run, file);
  if (*weighVerb) return runFileVerb(weigh, file);
  return runFileVerb(*stockVerb ? stock : mix, file);
}

} // namespace butte::cli
