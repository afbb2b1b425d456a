#include "panel/sim_panel.h"

#include "serve/sim_server.h"

#include <QComboBox>
#include <QFont>
#include <QGridLayout>
#include <QLabel>
#include <QLocale>
#include <QPushButton>

namespace butte::sim {

using core::Mass;

namespace {

constexpr int displaySize = 34, columns = 4;
/// Shares of the portion that fall in a second, and at once.
constexpr double slowly = 0.02, quickly = 0.25, scoop = 0.25, pinch = 0.004, spoonful = 0.05;
constexpr double cupGrams = 38, pailGrams = 940, draughtSeconds = 4, unplugSeconds = 4, pullShare = 0.05;

QLabel* plainLabel() {
  auto* label = new QLabel;
  label->setTextFormat(Qt::PlainText);
  return label;
}

} // namespace

SimPanel::SimPanel(SimServer& server, QWidget* parent)
    : QWidget(parent), m_server(server), m_display(plainLabel()), m_truth(plainLabel()) {
  setObjectName("simPanel");
  setWindowTitle(tr("Stand-in scale"));
  m_display->setObjectName("simDisplay");
  auto face = font();
  face.setPixelSize(displaySize);
  face.setBold(true);
  m_display->setFont(face);
  m_display->setAlignment(Qt::AlignRight);
  m_truth->setAlignment(Qt::AlignRight);
  auto* grid = new QGridLayout(this);
  grid->addWidget(m_display, 0, 0, 1, columns);
  grid->addWidget(m_truth, 1, 0, 1, columns);
  addContainers(grid);
  addPouring(grid);
  addMishaps(grid);
  addPen(grid);
  connect(&server, &SimServer::ticked, this, &SimPanel::refresh);
}

QPushButton* SimPanel::add(QGridLayout* grid, int row, int column, const QString& words, const char* name) {
  auto* button = new QPushButton(words);
  button->setObjectName(name);
  button->setFocusPolicy(Qt::NoFocus); // the keys stay with the bench
  grid->addWidget(button, row, column);
  return button;
}

void SimPanel::addContainers(QGridLayout* grid) {
  auto& bench = m_server.bench();
  const auto does = [&](QPushButton* button, const Act& what) {
    connect(button, &QPushButton::clicked, this, [&bench, what] { bench.apply(what); });
  };
  does(add(grid, 2, 0, tr("Cup on"), "simCup"), act::LayOn{Mass::fromGrams(cupGrams)});
  does(add(grid, 2, 1, tr("Pail on"), "simPail"), act::LayOn{Mass::fromGrams(pailGrams)});
  does(add(grid, 2, 2, tr("Tare"), "simTare"), act::Tare{});
  does(add(grid, 2, 3, tr("Tip it out, back on"), "simTip"), act::Tip{});
}

void SimPanel::addPouring(QGridLayout* grid) {
  const auto pours = [this](QPushButton* button, double share) {
    connect(button, &QPushButton::clicked, this, [this, share] {
      m_server.bench().apply(act::Pour{m_portion * share, 0});
    });
  };
  m_fast = add(grid, 3, 0, tr("Pour fast (hold)"), "simFast");
  m_slow = add(grid, 3, 1, tr("Pour slowly (hold)"), "simSlow");
  pours(add(grid, 3, 2, tr("A scoop"), "simScoop"), scoop);
  pours(add(grid, 3, 3, tr("A pinch"), "simPinch"), pinch);
  auto* out = add(grid, 4, 0, tr("A spoonful out"), "simOut");
  connect(out, &QPushButton::clicked, this,
          [this] { m_server.bench().apply(act::TakeOut{m_portion * spoonful}); });
}

void SimPanel::addMishaps(QGridLayout* grid) {
  auto* draught = add(grid, 4, 1, tr("A draught"), "simDraught");
  connect(draught, &QPushButton::clicked, this,
          [this] { m_server.bench().apply(act::Draught{draughtSeconds}); });
  auto* cord = add(grid, 4, 2, tr("A cord lifts it"), "simCord");
  cord->setCheckable(true);
  connect(cord, &QPushButton::toggled, this,
          [this](bool on) { m_server.bench().apply(act::Pull{on ? m_portion * pullShare : Mass{}}); });
  auto* unplug = add(grid, 4, 3, tr("Cable out for 4 s"), "simUnplug");
  connect(unplug, &QPushButton::clicked, this,
          [this] { m_server.bench().apply(act::Unplug{unplugSeconds}); });
  auto* unit = new QComboBox;
  unit->setObjectName("simUnit");
  unit->setAccessibleName(tr("unit of the display"));
  unit->addItems({"g", "kg", "oz", "lb", "lb:oz"});
  unit->setFocusPolicy(Qt::NoFocus);
  connect(unit, &QComboBox::textActivated, this,
          [this](const QString& shown) { m_server.bench().apply(act::ShowIn{shown.toStdString()}); });
  grid->addWidget(unit, 5, 0);
}

void SimPanel::addPen(QGridLayout* grid) {
  auto* air = add(grid, 5, 1, tr("Pen out of the water"), "simPenOut");
  connect(air, &QPushButton::clicked, this, [this] { m_server.bench().apply(act::PenOut{}); });
  auto* old = add(grid, 5, 2, tr("Pen badly calibrated"), "simPenBad");
  old->setCheckable(true);
  connect(old, &QPushButton::toggled, this, [this](bool on) {
    constexpr double slope = 0.88, offset = 0.3;
    m_server.bench().apply(on ? act::Calibrate{slope, offset} : act::Calibrate{});
  });
}

void SimPanel::refresh() {
  constexpr double perSecond = 1000.0 / SimServer::tickMilliseconds;
  auto& bench = m_server.bench();
  if (m_fast->isDown()) bench.apply(act::Pour{m_portion * (quickly / perSecond), 0});
  if (m_slow->isDown()) bench.apply(act::Pour{m_portion * (slowly / perSecond), 0});
  if (!isVisible()) return;
  m_display->setText(bench.isUnplugged() ? tr("no cable") : QString::fromStdString(bench.scale.line()));
  m_truth->setText(tr("truly in it: %1 g").arg(QLocale().toString(bench.scale.content().grams(), 'f', 2)));
}

} // namespace butte::sim
