#include "stations/stocks/tank_card.h"

#include "deed_words.h"
#include "document/formula_editor.h"
#include "document/product_looks.h"
#include "edits/mixing_edits.h"
#include "edits/stock_edits.h"
#include "fields/number_field.h"
#include "paint/fitted_label.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "paint/steady_room.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "refresh/while_seen.h"
#include "services/units_shown.h"
#include "stations/stocks/vessel_picture.h"
#include "stock_words.h"
#include "wording/tr.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QToolButton>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

namespace butte::app {

namespace {
constexpr double worthShowing = 0.02; // g/L on the floor: less is not seen
} // namespace

TankCard::TankCard(FormulaEditor& editor, UnitsShown& units, std::size_t index, QWidget* parent)
    : QFrame(parent), m_editor(editor), m_units(units), m_index(index), m_title(new PlainLabel),
      m_contents(new PlainLabel), m_ceiling(new WrappedLabel), m_volumeUnit(new PlainLabel),
      m_made(new FittedLabel), m_picture(new VesselPicture(editor, index)), m_items(new TankItems) {
  const auto id = [&](const char* name) { return QString("%1%2").arg(name).arg(index); };
  setObjectName(id("tankCard"));
  m_title->setObjectName(id("tankTitle"));
  m_title->setFont(faceOf(12, true));
  m_title->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  m_contents->setObjectName(id("tankContents")); // for screen readers; the rows are painted
  m_contents->hide();
  m_ceiling->setObjectName(id("tankCeiling"));
  m_ceiling->setFont(faceOf(12));
  m_ceiling->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Minimum);
  m_made->setObjectName(id("tankMade"));
  m_made->setFont(faceOf(11));
  m_made->setProperty("soft", true);

  m_items->setObjectName(id("tankItems"));
  auto* middle = new QHBoxLayout;
  middle->setSpacing(6);
  middle->addWidget(m_picture);
  middle->addWidget(m_items, 1);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(8, 6, 8, 6);
  column->setSpacing(3);
  column->addWidget(makeHead());
  column->addWidget(m_title);
  column->addLayout(middle, 1);
  column->addWidget(new SteadyRoom(m_made));
  column->addWidget(new SteadyRoom(m_ceiling));
  column->addWidget(m_contents);
  setAim(false);
  refresh();
}

QWidget* TankCard::makeHead() {
  auto* box = new QWidget;
  m_name = new QLineEdit;
  m_name->setObjectName(QString("tankName%1").arg(m_index));
  m_name->setFont(faceOf(15, true));
  m_name->setFixedWidth(64);
  m_name->setAccessibleName(tr("letter or name of the tank"));
  m_name->setToolTip(tr("Your own letter or name: which side is called A differs by school"));
  connect(m_name, &QLineEdit::textEdited, this,
          [this](const QString& text) { StockEdits(m_editor).setTankName(m_index, text); });
  m_volume = new NumberField({tr("tank volume"), "", 0.001, 1e6});
  m_volume->setObjectName(QString("tankVolume%1").arg(m_index));
  m_volume->setFixedWidth(54);
  m_volume->onTyped = [this](const QString& digits) {
    StockEdits(m_editor).setTankVolume(m_index, typed(digits, QString::fromStdString(m_vesselUnit)));
  };
  m_volume->asked = [this] { return AskedUnit{m_vesselUnit, {}}; };
  // In the unit that fits it, once the hand has left; queued, for a window that closes takes the focus too.
  connect(m_volume, &QLineEdit::editingFinished, this, &TankCard::refresh, Qt::QueuedConnection);
  m_volume->onMessage = [this](const QString& words) { emit message(words); };
  m_ratio = new NumberField({tr("ratio of this tank alone, 1 to"), "", 1, 100000, true});
  m_ratio->setObjectName(QString("tankRatio%1").arg(m_index));
  m_ratio->setFixedWidth(50);
  m_ratio->setToolTip(
      tr("Empty: the ratio of all. A figure: this tank hangs on a doser of its own, 1 to so much"));
  m_ratio->onTyped = [this](const QString& digits) { StockEdits(m_editor).setOwnRatio(m_index, digits); };
  m_ratio->onMessage = [this](const QString& words) { emit message(words); };
  m_menu = new QToolButton;
  m_menu->setObjectName(QString("tankMenu%1").arg(m_index));
  m_menu->setText("⋯");
  m_menu->setAccessibleName(tr("more about the tank"));
  m_menu->setPopupMode(QToolButton::InstantPopup);
  m_menu->setStyleSheet("QToolButton::menu-indicator { image: none; }");
  m_menu->setMenu(new QMenu(m_menu));
  connect(m_menu->menu(), &QMenu::aboutToShow, this, &TankCard::fillMenu);
  fillMenu();
  auto* row = new FlowRow(box, 4);
  row->addWidget(m_name);
  row->addStretch();
  row->addTogether({new PlainLabel("1:"), m_ratio});
  row->addTogether({m_volume, m_volumeUnit});
  row->addWidget(m_menu);
  return box;
}

/// What it is for, what it is made with, its own ratio, gone with it.
void TankCard::fillMenu() {
  auto* menu = m_menu->menu();
  menu->clear();
  const auto& document = m_editor.document();
  if (m_index >= document.tanks.size()) return;
  const auto choose = [&](QMenu* in, const QString& words, const QString& id, bool on, auto&& action) {
    auto* entry = in->addAction(words, this, action);
    entry->setObjectName(id + QString::number(m_index));
    entry->setCheckable(true);
    entry->setChecked(on);
  };
  const auto& tank = document.given.stock.tanks[m_index];
  menu->addSection(tr("It holds"));
  constexpr std::pair<core::TankUse, const char*> uses[] = {
      {core::TankUse::Salts, QT_TRANSLATE_NOOP("butte", "salts, by what may stand together")},
      {core::TankUse::Traces, QT_TRANSLATE_NOOP("butte", "traces and chelates")},
      {core::TankUse::Acid, QT_TRANSLATE_NOOP("butte", "acid")},
      {core::TankUse::Alone, QT_TRANSLATE_NOOP("butte", "one product alone: silicate, calcium chloride")}};
  for (const auto& [use, words] : uses) {
    const auto key = std::string(core::tankUseKey(use));
    choose(menu, app::tr(words), "tankUse_" + QString::fromStdString(key) + "_", tank.use == use,
           [this, use = use] { StockEdits(m_editor).setTankUse(m_index, use); });
  }
  menu->addSection(tr("Made up with"));
  const auto& sources = document.water.sources;
  const auto made = document.tanks[m_index].madeWith;
  const auto with = [&](const QString& words, const std::string& key, auto&& make) {
    choose(menu, words, "madeWith_" + QString::fromStdString(key) + "_", made == key, make);
  };
  with(tr("rain, distilled or membrane water"), "pure",
       [this] { StockEdits(m_editor).setMadeWithPure(m_index); });
  with(tr("the formula's water"), "blend", [this] { StockEdits(m_editor).setMadeWithBlend(m_index); });
  for (std::size_t i = 0; sources.size() > 1 && i < sources.size(); ++i) {
    const auto name = QString::fromStdString(sources[i].name);
    with(name, "part:" + std::to_string(i),
         [this, i, name] { StockEdits(m_editor).setMadeWithSource(m_index, i, name); });
  }
  menu->addSeparator();
  auto* keep = menu->addAction(tr("Put this stock onto the shelf as a product"), this,
                               [this] { StockEdits(m_editor).keepAsProduct(m_index); });
  keep->setObjectName("stockAsProduct" + QString::number(m_index));
  // Without any tank the salts go straight into the vessel.
  auto* gone =
      menu->addAction(document.tanks.size() == 1 ? tr("Take the last tank away: mix straight into a vessel")
                                                 : tr("Take this tank away"),
                      this, &TankCard::takeAway);
  gone->setObjectName("removeTank" + QString::number(m_index));
}

void TankCard::takeAway() {
  const bool last = m_editor.document().tanks.size() == 1;
  last ? MixingEdits(m_editor).setDirect(true) : StockEdits(m_editor).removeTank(m_index);
}

void TankCard::setAim(bool aimed) {
  const auto& t = theme();
  restyle(*this,
          QString("butte--app--TankCard { background: %1; border: %2px solid %3; border-radius: 6px; }")
              .arg(t.card.name(), aimed ? "3" : "1", (aimed ? t.accent : t.line).name()));
}

QString TankCard::limitingName(const core::TankContent& content) const {
  if (!content.limitingProduct) return QString::fromStdString(words::solidName(content.limitingSolid));
  return QString::fromStdString(
      m_editor.nameOf(m_editor.document().given.request.shelf[*content.limitingProduct].id));
}

/// What lies on the floor, why, and what the plants lack by it.
QString TankCard::fallenText(const core::TankContent& content) const {
  const auto& shelf = m_editor.document().given.request.shelf;
  QStringList fallen;
  for (const auto& f : content.fallen) {
    if (f.gramsPerLitre < worthShowing) continue;
    fallen << QString("%1 %2").arg(m_units.text(core::Concentration::fromGramsPerLitre(f.gramsPerLitre)),
                                   QString::fromStdString(f.product ? m_editor.nameOf(shelf[*f.product].id)
                                                                    : words::solidName(f.solid)));
  }
  if (fallen.isEmpty()) return {};
  QStringList lost;
  for (const auto n : core::allNutrients) {
    const double gone = content.lostMgPerLitreOfFeed.of(n);
    const double had = m_editor.answer().feed.milligramsPerLitre.of(n);
    if (n != core::Nutrient::N && had > 0 && gone / had > 0.01)
      lost << tr("%1 %2 of %3 mg/L")
                  .arg(QString::fromStdString(words::nutrientSymbol(n)), localFigure(gone), localFigure(had));
  }
  auto text = tr(" Falls out: %1.").arg(fallen.join(", "));
  for (const auto& m : content.meetings)
    text += tr(" %1 meets %2.")
                .arg(QString::fromStdString(m_editor.nameOf(shelf[m.a].id)),
                     QString::fromStdString(m_editor.nameOf(shelf[m.b].id)));
  return text + (lost.isEmpty() ? QString() : tr(" The plants lack %1.").arg(lost.join(", ")));
}

QString TankCard::ceilingText(const core::TankContent& content, bool& trouble) const {
  trouble = false;
  const auto& shelf = m_editor.document().given.request.shelf;
  if (content.items.empty()) return tr("nothing in it yet");
  const bool allMix =
      std::all_of(content.items.begin(), content.items.end(), [](const auto& i) { return i.miscible; });
  const auto known = content.maxFactorOfKnown;
  QStringList unknown;
  for (const auto& item : content.items) {
    if (!item.saturation && !item.miscible)
      unknown << QString::fromStdString(m_editor.nameOf(shelf[item.product].id));
  }
  const auto fallen = fallenText(content);
  trouble = !fallen.isEmpty() || (known && content.factor > *known);
  QString text;
  if (allMix) text = tr("mixes at any strength");
  if (known)
    text = tr("clear up to 1:%1 (%2 gives out)")
               .arg(QString::fromStdString(words::ceilingFigure(*known)), limitingName(content));
  if (known && content.factor > *known)
    text = tr("▲ too strong: %1").arg(text);
  else if (trouble)
    text = "▲ " + text;
  else if (known && content.safeFactor && content.factor > *content.safeFactor)
    text = tr("inside the margin: %1").arg(text);
  if (!unknown.isEmpty())
    text += tr("%1not known for %2").arg(text.isEmpty() ? "? " : "; ", unknown.join(", "));
  return text + "." + fallen;
}

std::vector<TankItems::Row> TankCard::rows(const core::TankContent& content) const {
  const auto& shelf = m_editor.document().given.request.shelf;
  std::vector<TankItems::Row> out;
  auto items = content.items;
  std::stable_sort(items.begin(), items.end(), [](const auto& a, const auto& b) { return a.mass > b.mass; });
  const StockEdits edits(m_editor);
  for (const auto& item : items) {
    TankItems::Row row;
    const auto& product = shelf[item.product];
    row.product = product.id;
    row.look = lookIn(m_editor.document(), product.id);
    row.weight = m_units.text(item.mass);
    row.name = QString::fromStdString(m_editor.nameOf(product.id));
    if (product.liquid && product.densityKgPerL)
      row.name +=
          " · " + m_units.stockText(core::Volume::fromLitres(item.mass.kilograms() / *product.densityKgPerL));
    row.saturation = item.saturation;
    row.knows = item.saturation || item.miscible;
    row.byHand = edits.isByHand(product.id);
    row.falls = item.saturation && *item.saturation > 1 + 1e-9;
    out.push_back(row);
  }
  return out;
}

QString TankCard::contentsText(const core::TankContent& content) const {
  QStringList lines;
  for (const auto& row : rows(content))
    lines << row.weight + " " + row.name;
  return lines.join("; ");
}

QString TankCard::madeText(const core::TankContent& content) const {
  const auto& with = m_editor.document().tanks[m_index].madeWith;
  const auto& sources = m_editor.document().water.sources;
  QString water = with == "blend" ? tr("the formula's water") : tr("rain or membrane water");
  for (std::size_t i = 0; i < sources.size(); ++i) {
    if (with == "part:" + std::to_string(i)) water = QString::fromStdString(sources[i].name);
  }
  const auto ph = content.ph ? " · pH " + localNumber(*content.ph, 1) : QString();
  return tr("%1%2 · with %3").arg(m_units.densityText(content.densityKgPerLitre), ph, water);
}

void TankCard::refresh() {
  const auto& tanks = m_editor.answer().stock.tanks;
  if (m_index >= tanks.size()) return;
  const auto& content = tanks[m_index];
  const auto& shelf = m_editor.document().given.request.shelf;
  const auto name = QString::fromStdString(content.tank.name);
  if (m_name->text() != name) m_name->setText(name);
  m_title->setText(
      QString("%1%2").arg(QString::fromStdString(words::tankTitle(shelf, content)),
                          content.tank.ownFactor ? " · 1:" + localFigure(content.factor) : QString()));
  const auto rowsNow = rows(content);
  m_items->show(rowsNow);
  m_contents->setText(contentsText(content));
  bool trouble = false;
  m_ceiling->setText(ceilingText(content, trouble));
  restyle(*m_ceiling,
          QString("color: %1; %2")
              .arg((trouble ? theme().red : theme().inkSoft).name(), trouble ? "font-weight: bold;" : ""));
  m_made->setText(content.items.empty() ? QString() : madeText(content));
  m_made->setToolTip(m_made->text());
  const StockEdits edits(m_editor);
  const auto volume = edits.tankVolume(m_index);
  // Never under a typing hand, but for another choice of units.
  if (!m_volume->hasFocus() || m_shownIn != m_units.measures())
    m_vesselUnit = m_units.measures().vesselUnit(content.tank.volume);
  m_shownIn = m_units.measures();
  m_volume->show(shownIn(volume, QString::fromStdString(m_vesselUnit)));
  m_volumeUnit->setText(QString::fromStdString(words::unitName(m_vesselUnit)));
  m_ratio->setPlaceholderText(localFigure(m_editor.document().given.stock.factor));
  m_ratio->show(QString::fromStdString(edits.ownRatio(m_index)));
  m_picture->refresh();
}

} // namespace butte::app
