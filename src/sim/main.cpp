// butte-sim: a scale and a pen that are none, over pseudo-terminals and TCP (docs/formats/sim_scenarios.md).
#include "panel/sim_panel.h"
#include "serve/sim_server.h"

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

} // namespace

int main(int argc, char** argv) {
  Asked asked;
  CLI::App options{"A scale and a pen that are none, for trying Butte without them."};
  describe(options, asked);
  CLI11_PARSE(options, argc, argv);
  if (!asked.panel && qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
  QApplication app(argc, argv);
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
  constexpr int thousand = 1000;
  if (asked.seconds > 0)
    QTimer::singleShot(static_cast<int>(asked.seconds * thousand), &app, &QApplication::quit);
  return QApplication::exec();
}
