// butte-sim: a scale and a pen that are none, over pseudo-terminals and TCP (docs/formats/sim_scenarios.md);
// with "tank" a tank and its logger (docs/formats/streams.md).
#include "panel/sim_panel.h"
#include "serve/sim_server.h"
#include "serve/tank_server.h"
#include "stream/stream_address.h"

#include <CLI/CLI.hpp>
#include <QApplication>
#include <QFile>
#include <cstdio>
#include <memory>

namespace {

struct Asked {
  int scalePort = 0, penPort = 0;
  std::string scenario, unit = "g";
  double stepGrams = 0.1, capacityGrams = 6000, noiseSteps = 0.3, seconds = 0;
  std::uint64_t seed = 1;
  bool panel = false;
};

void describe(CLI::App& app, Asked& asked) {
  app.add_option("--scale-port", asked.scalePort, "TCP port of the scale; 0 for any")
      ->check(CLI::Range(0, 65535));
  app.add_option("--pen-port", asked.penPort, "TCP port of the pen; 0 for any")->check(CLI::Range(0, 65535));
  app.add_option("--scenario", asked.scenario, "a file of acts by their seconds");
  app.add_option("--unit", asked.unit, "of the display")
      ->check(CLI::IsMember({"g", "kg", "oz", "lb", "lb:oz"}));
  app.add_option("--step", asked.stepGrams, "grams that the display resolves")
      ->check(CLI::Range(0.0001, 1e6));
  app.add_option("--capacity", asked.capacityGrams, "grams it takes")->check(CLI::Range(0.1, 1e9));
  app.add_option("--noise", asked.noiseSteps, "flicker, in steps")->check(CLI::Range(0.0, 100.0));
  app.add_option("--seed", asked.seed, "of the chance");
  app.add_option("--seconds", asked.seconds, "ends after so long; 0 for never")->check(CLI::Range(0.0, 1e7));
  app.add_flag("--panel", asked.panel, "a window to pour with");
}

struct TankAsked {
  std::string csv, mqtt;
  int linePort = -1, modbusPort = 0;
  double pastDays = 0, every = 5, haste = 1, litres = 1000, drunk = 60, phDrift = 0, ecDrift = 0, wild = 0;
  std::optional<double> sticksAfter;
};

CLI::App* describeTank(CLI::App& app, TankAsked& asked) {
  auto* tank = app.add_subcommand("tank", "a tank with plants and its logger");
  tank->fallthrough();
  tank->add_option("--csv", asked.csv, "a file that grows by a row each time");
  tank->add_option("--past", asked.pastDays, "days that are in it already")->check(CLI::Range(0.0, 3660.0));
  tank->add_option("--lines-port", asked.linePort, "lines over TCP; 0 for any port")
      ->check(CLI::Range(0, 65535));
  tank->add_option("--modbus-port", asked.modbusPort, "Modbus registers over TCP")
      ->check(CLI::Range(1, 65535));
  tank->add_option("--mqtt", asked.mqtt, "mqtt:broker:1883/topic to publish under");
  tank->add_option("--every", asked.every, "seconds between two lines")->check(CLI::Range(0.05, 86400.0));
  tank->add_option("--haste", asked.haste, "so many times as quick as the clock")
      ->check(CLI::Range(0.0, 1e5));
  tank->add_option("--litres", asked.litres, "that it holds when full")->check(CLI::Range(1.0, 1e7));
  tank->add_option("--drunk", asked.drunk, "litres in a day")->check(CLI::Range(0.0, 1e6));
  tank->add_option("--ph-drift", asked.phDrift, "of the pen, a day")->check(CLI::Range(-5.0, 5.0));
  tank->add_option("--ec-drift", asked.ecDrift, "of the pen, a share a day")->check(CLI::Range(-1.0, 1.0));
  tank->add_option("--level-sticks", asked.sticksAfter, "days after which the float hangs");
  tank->add_option("--wild", asked.wild, "share of lines with a figure that can't be")
      ->check(CLI::Range(0.0, 1.0));
  return tank;
}

/// False with a word where something can't be had.
bool serveTank(butte::sim::TankServer& server, const TankAsked& asked) {
  const auto refused = [](const char* option, const std::string& what) {
    std::fprintf(stderr, "butte-sim: %s: %s\n", option, what.c_str());
    return false;
  };
  if (!asked.csv.empty() && !server.writeCsv(QString::fromStdString(asked.csv), asked.pastDays))
    return refused("--csv", asked.csv + " can't be written");
  if (asked.linePort >= 0 && !server.serveLines(static_cast<quint16>(asked.linePort)))
    return refused("--lines-port", "the TCP port is taken");
  if (asked.modbusPort > 0 && !server.serveModbus(static_cast<quint16>(asked.modbusPort)))
    return refused("--modbus-port", "the TCP port can't be had");
  if (!asked.mqtt.empty()) {
    const auto address = butte::devices::StreamAddress::parse(asked.mqtt);
    if (!address || address->kind != butte::devices::StreamAddress::Kind::Mqtt ||
        address->topic.find_first_of("#+") != std::string::npos)
      return refused("--mqtt", asked.mqtt + "; it takes mqtt:broker:1883/topic");
    server.publishTo(address->port, QString::fromStdString(address->topic));
    std::printf("%s\n", address->text().c_str());
  }
  if (!asked.csv.empty()) std::printf("file:%s\n", asked.csv.c_str());
  if (asked.linePort >= 0) std::printf("tcp:127.0.0.1:%d\n", server.linePort());
  if (asked.modbusPort > 0) std::printf("modbus:tcp:127.0.0.1:%d unit 1\n", asked.modbusPort);
  std::fflush(stdout);
  server.start(asked.every, asked.haste);
  return true;
}

/// Its acts, or a sentence about what is wrong with it.
bool play(butte::sim::SimServer& server, const std::string& path) {
  constexpr qint64 mostBytes = 1 << 20;
  QFile file(QString::fromStdString(path));
  if (!file.open(QIODevice::ReadOnly)) {
    std::fprintf(stderr, "butte-sim: --scenario: %s can't be read\n", path.c_str());
    return false;
  }
  const auto acts = butte::sim::parseScenario(file.read(mostBytes).toStdString());
  if (!acts) {
    const auto& problem = acts.problem();
    std::fprintf(stderr, "butte-sim: %s: %s: \"%s\"; it takes %s\n", path.c_str(), problem.where.c_str(),
                 problem.values[0].c_str(), problem.values[1].c_str());
    return false;
  }
  server.bench().play(*acts);
  return true;
}

void tell(const butte::sim::SimServer& server) {
  std::printf("scale serial:%s\nscale tcp:127.0.0.1:%d\npen serial:%s\npen tcp:127.0.0.1:%d\n",
              qPrintable(server.scaleCable()), server.scalePort(), qPrintable(server.penCable()),
              server.penPort());
  std::fflush(stdout);
}

constexpr int thousand = 1000;

void endAfter(double seconds, QApplication& app) {
  if (seconds > 0) QTimer::singleShot(static_cast<int>(seconds * thousand), &app, &QApplication::quit);
}

int runTank(const TankAsked& asked, const Asked& all, QApplication& app) {
  butte::sim::TankKind kind;
  constexpr double lowShare = 0.7;
  kind.full = butte::core::Volume::fromLitres(asked.litres);
  kind.low = kind.full * lowShare;
  kind.drunkLPerDay = asked.drunk;
  kind.penPhPerDay = asked.phDrift;
  kind.penEcSharePerDay = asked.ecDrift;
  kind.levelSticksAfterDays = asked.sticksAfter;
  kind.wildShare = asked.wild;
  butte::sim::TankServer server(kind, all.seed);
  if (!serveTank(server, asked)) return 1;
  endAfter(all.seconds, app);
  return QApplication::exec();
}

} // namespace

int main(int argc, char** argv) {
  Asked asked;
  TankAsked tankAsked;
  CLI::App options{"A scale and a pen that are none, for trying Butte without them."};
  describe(options, asked);
  const auto* tank = describeTank(options, tankAsked);
  CLI11_PARSE(options, argc, argv);
  if (!asked.panel && qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
  QApplication app(argc, argv);
  if (tank->parsed()) return runTank(tankAsked, asked, app);
  butte::sim::ScaleKind kind;
  kind.step = butte::core::Mass::fromGrams(asked.stepGrams);
  kind.capacity = butte::core::Mass::fromGrams(asked.capacityGrams);
  kind.unit = asked.unit;
  kind.noiseSteps = asked.noiseSteps;
  butte::sim::SimServer server(kind, asked.seed);
  if (!server.listen(static_cast<quint16>(asked.scalePort), static_cast<quint16>(asked.penPort))) {
    std::fprintf(stderr, "butte-sim: the TCP port is taken\n");
    return 1;
  }
  if (!asked.scenario.empty() && !play(server, asked.scenario)) return 2;
  tell(server);
  std::unique_ptr<butte::sim::SimPanel> panel;
  if (asked.panel) {
    panel = std::make_unique<butte::sim::SimPanel>(server);
    panel->show();
  }
  endAfter(asked.seconds, app);
  return QApplication::exec();
}
