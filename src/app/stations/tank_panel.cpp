#include "stations/tank_panel.h"

#include "base/decimal.h"
#include "document/formula_editor.h"
#include "fields/number_field.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "stations/tank_picture.h"
#include "words.h"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>

namespace butte::app {

using exchange::Json;

TankPanel::TankPanel(FormulaEditor& editor, UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_units(units) {
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(12);
  row->addWidget(makeTank(0), 3);
  row->addWidget(makeTank(1), 3);
  auto* dilution = makeDilution();
  dilution->setFixedWidth(226);
  row->addWidget(dilution);
  connect(&editor, &FormulaEditor::changed, this, &TankPanel::refresh);
  connect(&units, &UnitsShown::changed, this, &TankPanel::refresh);
  refresh();
}

NumberField* TankPanel::makeField(const QString& name, const QString& id, double least, double most,
                                  const std::string& pointer) {
  auto* field = new NumberField({name, "", least, most});
  field->setObjectName(id);
  field->setFixedWidth(64);
  field->onTyped = [this, name, pointer](const QString& digits) {
    m_editor.set(name + " to " + digits, pointer, digits.toStdString(), true);
  };
  field->onMessage = [this](const QString& words) { emit message(words); };
  return field;
}

QWidget* TankPanel::makeTank(int index) {
  auto* box = new QWidget;
  TankWidgets tank;
  tank.title = new QLabel;
  tank.title->setFont(faceOf(13, true));
  tank.title->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  tank.title->setObjectName(QString("tankTitle%1").arg(index));
  tank.contents = new QLabel;
  tank.contents->setFont(faceOf(12));
  tank.contents->setObjectName(QString("tankContents%1").arg(index));
  tank.contents->setWordWrap(true);
  tank.contents->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Ignored);
  tank.contents->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  tank.ceiling = new QLabel;
  tank.ceiling->setFont(faceOf(12));
  tank.ceiling->setWordWrap(true);
  tank.ceiling->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Minimum);
  tank.ceiling->setObjectName(QString("tankCeiling%1").arg(index));
  tank.volume = new NumberField({"tank volume", "", 0.001, 1e6});
  tank.volume->setObjectName(QString("tankVolume%1").arg(index));
  tank.volume->setFixedWidth(50);
  tank.volume->onTyped = [this, index](const QString& digits) {
    m_editor.set("tank volume to " + digits + " " + m_units.volumeUnitName(),
                 "/stock/tanks/" + std::to_string(index) + "/volume",
                 exchange::amountJson(digits.toStdString(), m_units.volumeUnit().toStdString()), true);
  };
  tank.volume->onMessage = [this](const QString& words) { emit message(words); };
  tank.volumeUnit = new QLabel;
  auto* head = new QHBoxLayout;
  head->addWidget(tank.title, 1);
  head->addWidget(tank.volume);
  head->addWidget(tank.volumeUnit);
  auto* words = new QVBoxLayout;
  words->setSpacing(2);
  words->addLayout(head);
  words->addWidget(tank.contents, 1);
  words->addWidget(tank.ceiling);
  auto* row = new QHBoxLayout(box);
  row->setContentsMargins(0, 0, 0, 0);
  row->addWidget(new TankPicture(m_editor, index));
  row->addLayout(words, 1);
  m_tanks.push_back(tank);
  return box;
}

QWidget* TankPanel::makeDilution() {
  auto* box = new QWidget;
  m_factor = makeField("stock strength 1:", "stockFactor", 1, 100000, "/stock/factor");
  m_coldest = new NumberField({"coldest that the tanks will see", "°C", -5, 60});
  m_coldest->setObjectName("coldest");
  m_coldest->setFixedWidth(64);
  m_coldest->onTyped = [this](const QString& d) {
    m_editor.set("coldest tank to " + d + " °C", "/stock/coldest", exchange::amountJson(d.toStdString(), "C"),
                 true);
  };
  m_coldest->onMessage = [this](const QString& words) { emit message(words); };
  m_alkalinity = new NumberField({"alkalinity to leave after acid", "meq/L", 0, 20, true});
  m_alkalinity->setObjectName("alkalinityLeft");
  m_alkalinity->setFixedWidth(64);
  m_alkalinity->setPlaceholderText("no acid");
  m_alkalinity->onTyped = [this](const QString& d) {
    m_editor.set(d.isEmpty() ? QString("no acid dosed") : "alkalinity left to " + d + " meq/L",
                 "/alkalinity_left",
                 d.isEmpty() ? Json(nullptr) : exchange::amountJson(d.toStdString(), "meq/L"), true);
  };
  m_alkalinity->onMessage = [this](const QString& words) { emit message(words); };
  m_dose = new QLabel;
  m_dose->setObjectName("dose");
  m_dose->setFont(faceOf(13, true));
  m_dose->setWordWrap(true);
  m_apart = new QLabel;
  m_apart->setObjectName("apart");
  m_apart->setWordWrap(true);
  m_apart->setFont(faceOf(12));
  auto* swap = new QPushButton("Swap letters A ⇄ B");
  swap->setObjectName("swapLetters");
  swap->setToolTip(
      "Which side is called A differs by school: the letter is yours, the contents stay where they are");
  connect(swap, &QPushButton::clicked, this, &TankPanel::swapLetters);
  auto* grid = new QGridLayout(box);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setVerticalSpacing(3);
  const auto line = [&](int row, const QString& name, QWidget* field, const QString& unit) {
    grid->addWidget(new QLabel(name), row, 0);
    grid->addWidget(field, row, 1);
    grid->addWidget(new QLabel(unit), row, 2);
  };
  line(0, "strength 1 :", m_factor, "");
  line(1, "coldest night", m_coldest, "°C");
  line(2, "leave alkalinity", m_alkalinity, "meq/L");
  grid->addWidget(m_dose, 3, 0, 1, 3);
  grid->addWidget(m_apart, 4, 0, 1, 3);
  grid->addWidget(swap, 5, 0, 1, 3);
  grid->setRowStretch(4, 1);
  return box;
}

namespace {

QString shareText(double saturation) {
  return saturation < 0.01 ? QString("&nbsp;&lt;1&nbsp;%")
                           : QString("&nbsp;%1&nbsp;%").arg(localNumber(100 * saturation, 0));
}

} // namespace

/// What gives out first: a product of the tank, or a solid that its ions make together.
QString TankPanel::limitingName(const core::TankContent& content) const {
  if (!content.limitingProduct) return QString::fromStdString(words::solidName(content.limitingSolid));
  return QString::fromStdString(
      m_editor.nameOf(m_editor.document().given.request.shelf[*content.limitingProduct].id));
}

/// What lies on the floor of a tank that is too strong or that should not be one tank.
QString TankPanel::fallenText(const core::TankContent& content) {
  QStringList fallen;
  for (const auto& solid : content.solids) {
    if (solid.gramsPerLitre > 0.05)
      fallen << QString("%1 g/L %2")
                    .arg(localFigure(solid.gramsPerLitre),
                         QString::fromStdString(words::solidName(solid.name)));
  }
  return fallen.isEmpty() ? QString() : "; falls out: " + fallen.join(", ");
}

QString TankPanel::ceilingText(std::size_t index) const {
  const auto& content = m_editor.answer().stock.tanks[index];
  const auto& shelf = m_editor.document().given.request.shelf;
  if (content.items.empty()) return "nothing in it yet";
  const auto known = content.maxFactorOfKnown;
  const auto limit = known ? QString("clear up to 1:%1 (%2 gives out)")
                                 .arg(localNumber(std::floor(*known), 0), limitingName(content))
                           : QString();
  if (content.maxFactor)
    return (m_editor.document().given.stock.factor > *content.maxFactor ? "▲ too strong: " : "") + limit +
           fallenText(content);
  QStringList unknown;
  for (const auto& item : content.items) {
    if (!item.saturation && !item.miscible)
      unknown << QString::fromStdString(m_editor.nameOf(shelf[item.product].id));
  }
  const auto rest = "not known for " + unknown.join(", ");
  const bool over = known && m_editor.document().given.stock.factor > *known;
  return (over ? "▲ too strong: " : "? ") + (limit.isEmpty() ? rest : limit + "; " + rest) +
         fallenText(content);
}

void TankPanel::refreshTank(std::size_t index) {
  const auto& content = m_editor.answer().stock.tanks[index];
  const auto& shelf = m_editor.document().given.request.shelf;
  auto& widgets = m_tanks[index];
  widgets.title->setText(QString("%1 · %2").arg(QString::fromStdString(content.tank.name),
                                                index == 0 ? "calcium side" : "sulfate, phosphate"));
  auto items = content.items;
  std::stable_sort(items.begin(), items.end(), [](const auto& a, const auto& b) { return a.mass > b.mass; });
  // What is less than a hundredth of the tank goes into one line: many small salts, little to read.
  QStringList lines, traces;
  const auto soft = theme().inkSoft.name();
  for (const auto& item : items) {
    const auto name = QString::fromStdString(m_editor.nameOf(shelf[item.product].id)).toHtmlEscaped();
    const auto text = QString("<b>%1</b> %2").arg(m_units.text(item.mass), name);
    if (item.mass < content.total() * 0.01) {
      traces << text;
      continue;
    }
    const auto share = item.saturation ? shareText(*item.saturation)
                       : item.miscible ? QString()
                                       : QString("&nbsp;?");
    lines << text + QString("<span style='color:%1'>%2</span>").arg(soft, share);
  }
  if (!traces.isEmpty()) lines << "<span style='font-size:11px'>" + traces.join(", ") + "</span>";
  widgets.contents->setText(lines.join("<br>"));
  widgets.contents->setToolTip("To weigh for the full tank; behind it, how near it is to falling out in this "
                               "tank at the coldest night");
  widgets.ceiling->setText(ceilingText(index));
  const bool trouble = widgets.ceiling->text().startsWith("▲");
  widgets.ceiling->setStyleSheet(
      QString("color: %1; %2")
          .arg((trouble ? theme().red : theme().inkSoft).name(), trouble ? "font-weight: bold;" : ""));
  const auto& volume = m_editor.json()["stock"]["tanks"][index]["volume"];
  const bool ownUnit = QString::fromStdString(volume["unit"].get<std::string>()) == m_units.volumeUnit();
  widgets.volume->show(ownUnit
                           ? QString::fromStdString(volume["amount"].get<std::string>())
                           : QString::fromStdString(words::figure(m_units.volumeIn(content.tank.volume))));
  widgets.volumeUnit->setText(m_units.volumeUnitName());
}

void TankPanel::refresh() {
  for (std::size_t i = 0; i < m_tanks.size(); ++i)
    refreshTank(i);
  const auto& stock = m_editor.json()["stock"];
  m_factor->show(QString::fromStdString(stock["factor"].get<std::string>()));
  const auto coldest = m_editor.document().given.stock.temperature.celsius();
  m_coldest->show(stock["coldest"]["unit"] == "C"
                      ? QString::fromStdString(stock["coldest"]["amount"].get<std::string>())
                      : localNumber(coldest, 1));
  const auto left = m_editor.document().given.request.alkalinityLeftMeqPerL;
  m_alkalinity->show(left ? QString::fromStdString(core::decimalText(*left)) : QString());
  const auto& answer = m_editor.answer().stock;
  m_dose->setText(m_units.dose(answer.doseMlPerLitre) + " of each tank" +
                  (answer.feedMade ? "; makes " + m_units.text(*answer.feedMade) + " of feed" : QString()));
  m_dose->setToolTip(UnitsShown::doseInAll(answer.doseMlPerLitre));
  QStringList apart;
  const auto& shelf = m_editor.document().given.request.shelf;
  for (const auto j : answer.notPlaced) {
    const auto mass = m_editor.answer().solution.grams[j];
    const auto& p = shelf[j];
    const auto millilitres =
        p.densityKgPerL ? QString(" (%1 mL)").arg(localFigure(mass.grams() / *p.densityKgPerL)) : QString();
    apart << QString("Apart: %1%2 %3 per %4 of feed")
                 .arg(m_units.text(mass), millilitres, QString::fromStdString(m_editor.nameOf(p.id)),
                      m_units.text(m_editor.document().given.request.volume));
  }
  m_apart->setText(apart.join("\n"));
}

void TankPanel::swapLetters() {
  const auto& tanks = m_editor.json()["stock"]["tanks"];
  m_editor.apply({"tank letters swapped",
                  {{"/stock/tanks/0/name", tanks[0]["name"], tanks[1]["name"]},
                   {"/stock/tanks/1/name", tanks[1]["name"], tanks[0]["name"]}},
                  ""});
}

} // namespace butte::app
