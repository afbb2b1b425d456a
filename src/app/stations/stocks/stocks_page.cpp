#include "stations/stocks/stocks_page.h"

#include "base/decimal.h"
#include "document/book_desk.h"
#include "document/formula_editor.h"
#include "document/stock_edits.h"
#include "dose/ratio.h"
#include "fields/filling_combo.h"
#include "fields/number_field.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "stations/stocks/cold_panel.h"
#include "stations/stocks/levels_panel.h"
#include "stations/stocks/making_panel.h"
#include "stations/stocks/reading_panel.h"
#include "stations/stocks/strength_ruler.h"
#include "stations/stocks/supply_panel.h"
#include "stations/stocks/tank_card.h"
#include "stations/stocks/vessel_dose_panel.h"
#include "stations/stocks/way_panel.h"
#include "stock_words.h"

#include <QButtonGroup>
#include <QHBoxLayout>
#include <QLabel>
#include <QMenu>
#include <QPushButton>
#include <QStackedWidget>
#include <QToolButton>
#include <QVBoxLayout>
#include <cmath>

namespace butte::app {

using exchange::Json;

namespace {
constexpr std::pair<core::RatioForm, const char*> forms[] = {{core::RatioForm::OneTo, "1 :"},
                                                             {core::RatioForm::Percent, "%"},
                                                             {core::RatioForm::MlPerLitre, "mL per L"},
                                                             {core::RatioForm::MlPerUsGallon, "mL per US gal"},
                                                             {core::RatioForm::MlPerImperialGallon, "mL per imp gal"},
                                                             {core::RatioForm::FluidOuncesPerUsGallon, "fl oz per US gal"}};

core::RatioForm formOf(const Json& stock) {
  for (const auto& [form, words] : forms) {
    if (stock.value("factor_form", std::string("one_to")) == core::ratioKey(form)) return form;
  }
  return core::RatioForm::OneTo;
}

/// As few digits as keep the ratio to a thousandth.
std::string ratioDigits(double figure) {
  double step = 1;
  while (step > figure / 1000)
    step /= 10;
  return core::decimalText(std::round(figure / step) * step);
}
} // namespace

StocksPage::StocksPage(FormulaEditor& editor, UnitsShown& units, BookDesk& desk, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_units(units), m_desk(desk), m_ruler(new StrengthRuler) {
  // It has the window's whole width when it is seen; behind the others it must not widen the window.
  setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(6);
  column->addWidget(makeStrength());
  column->addWidget(m_ruler);
  m_cardRow = new QHBoxLayout;
  m_cardRow->setSpacing(8);
  column->addLayout(m_cardRow, 5);
  m_apart = new QLabel;
  m_apart->setObjectName("apart");
  m_apart->setWordWrap(true);
  m_apart->setFont(faceOf(12));
  m_besideText = new QLabel;
  m_besideText->setObjectName("besideText");
  m_besideText->setWordWrap(true);
  m_besideText->setFont(faceOf(12));
  column->addWidget(m_apart);
  column->addWidget(m_besideText);
  column->addWidget(makeParts(), 4);
  connect(m_ruler, &StrengthRuler::factorMoved, this, [this](double factor, bool done) {
    const auto digits = ratioDigits(core::figureOf(formOf(m_editor.json()["stock"]), factor));
    StockEdits(m_editor).setStock("strength to 1:" + QString::fromStdString(core::decimalText(factor)), "factor", digits);
    if (done) m_editor.endMerging();
  });
  connect(&editor, &FormulaEditor::changed, this, &StocksPage::refresh);
  connect(&units, &UnitsShown::changed, this, &StocksPage::refresh);
  makeCards();
  refresh();
}

NumberField* StocksPage::makeField(const QString& name, const QString& id, double least, double most, int width) {
  auto* field = new NumberField({name, "", least, most});
  field->setObjectName(id);
  field->setFixedWidth(width);
  field->onMessage = [this](const QString& words) { emit message(words); };
  return field;
}

QWidget* StocksPage::makeStrength() {
  auto* box = new QWidget;
  auto* row = new QHBoxLayout(box);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(6);
  m_form = new QComboBox;
  m_form->setObjectName("ratioForm");
  m_form->setFixedWidth(112);
  m_form->setAccessibleName("how the dilution is stated");
  for (const auto& [form, words] : forms)
    m_form->addItem(words, static_cast<int>(form));
  connect(m_form, &QComboBox::activated, this, [this] {
    const auto form = static_cast<core::RatioForm>(m_form->currentData().toInt());
    const auto& stock = m_editor.json()["stock"];
    const auto figure = ratioDigits(core::figureOf(form, m_editor.document().given.stock.factor));
    m_editor.apply({("dilution as " + m_form->currentText()).toStdString(),
                    {{"/stock/factor_form", stock.value("factor_form", Json()), std::string(core::ratioKey(form))},
                     {"/stock/factor", stock["factor"], figure}},
                    ""});
  });
  m_factor = makeField("stock strength", "stockFactor", 0.0001, 100000, 64);
  m_factor->setFont(faceOf(15, true));
  m_factor->onTyped = [this](const QString& d) { StockEdits(m_editor).setStock("stock strength to " + d, "factor", d.toStdString()); };
  m_coldest = makeField("coldest that the tanks will see, °C", "coldest", -5, 60, 46);
  m_coldest->onTyped = [this](const QString& d) {
    StockEdits(m_editor).setStock("coldest tank to " + d + " °C", "coldest", exchange::amountJson(d.toStdString(), "C"));
  };
  m_margin = makeField("margin below the ceiling, %", "stockMargin", 0, 90, 40);
  m_margin->onTyped = [this](const QString& d) { StockEdits(m_editor).setStock("margin to " + d + " %", "margin_percent", d.toStdString()); };
  m_alkalinity = new NumberField({"alkalinity to leave after acid", "meq/L", 0, 20, true});
  m_alkalinity->setObjectName("alkalinityLeft");
  m_alkalinity->setFixedWidth(56);
  m_alkalinity->setPlaceholderText("no acid");
  m_alkalinity->onMessage = [this](const QString& words) { emit message(words); };
  m_alkalinity->onTyped = [this](const QString& d) {
    m_editor.set(d.isEmpty() ? QString("no acid dosed") : "alkalinity left to " + d + " meq/L", "/alkalinity_left",
                 d.isEmpty() ? Json(nullptr) : exchange::amountJson(d.toStdString(), "meq/L"), true);
  };
  m_dose = new QLabel;
  m_dose->setObjectName("dose");
  m_dose->setFont(faceOf(13, true));
  m_dose->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  auto* swap = new QPushButton("Swap A ⇄ B");
  swap->setObjectName("swapLetters");
  swap->setToolTip("Which side is called A differs by school: the letter is yours, the contents stay where they are");
  connect(swap, &QPushButton::clicked, this, [this] { StockEdits(m_editor).swapFirstNames(); });
  auto* add = new QToolButton;
  add->setObjectName("addTank");
  add->setText("+ tank");
  add->setPopupMode(QToolButton::InstantPopup);
  add->setStyleSheet("QToolButton::menu-indicator { image: none; }");
  auto* menu = new QMenu(add);
  constexpr std::pair<core::TankUse, const char*> uses[] = {{core::TankUse::Salts, "for salts"},
                                                            {core::TankUse::Traces, "for traces and chelates"},
                                                            {core::TankUse::Acid, "for acid"},
                                                            {core::TankUse::Alone, "for silicate or calcium chloride alone"}};
  for (const auto& [use, words] : uses) {
    auto* action = menu->addAction(words, this, [this, chosen = use] { StockEdits(m_editor).addTank(chosen); });
    action->setObjectName("addTank_" + QString::fromStdString(std::string(words::code(use))));
  }
  add->setMenu(menu);
  row->addWidget(new QLabel("Strength"));
  row->addWidget(m_form);
  row->addWidget(m_factor);
  row->addWidget(m_dose, 1);
  row->addWidget(new QLabel("coldest night"));
  row->addWidget(m_coldest);
  row->addWidget(new QLabel("°C · margin"));
  row->addWidget(m_margin);
  row->addWidget(new QLabel("% · acid leaves"));
  row->addWidget(m_alkalinity);
  row->addWidget(new QLabel("meq/L"));
  row->addWidget(swap);
  row->addWidget(add);
  return box;
}

QWidget* StocksPage::makeParts() {
  auto* box = new QWidget;
  auto* column = new QVBoxLayout(box);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(6);
  auto* bar = new QHBoxLayout;
  bar->setSpacing(4);
  m_partButtons = new QButtonGroup(this);
  m_parts = new QStackedWidget;
  auto* making = new MakingPanel(m_editor, m_units);
  connect(making, &MakingPanel::labelsAsked, this, &StocksPage::labelsAsked);
  const std::pair<const char*, StockPanel*> parts[] = {{"Way to the tap", new WayPanel(m_editor, m_units)},
                                                       {"Cold nights", new ColdPanel(m_editor, m_units)},
                                                       {"Making them", making},
                                                       {"How long", new SupplyPanel(m_editor, m_units)},
                                                       {"Dose a vessel", new VesselDosePanel(m_editor, m_units)},
                                                       {"Meter says otherwise", new ReadingPanel(m_editor, m_units)},
                                                       {"Levels", new LevelsPanel(m_editor, m_units)}};
  int i = 0;
  for (const auto& [name, panel] : parts) {
    auto* button = new QToolButton;
    button->setText(name);
    button->setCheckable(true);
    button->setObjectName(QString("stockPart%1").arg(i));
    m_partButtons->addButton(button, i++);
    bar->addWidget(button);
    m_parts->addWidget(panel);
    connect(panel, &StockPanel::message, this, &StocksPage::message);
  }
  m_partButtons->button(0)->setChecked(true);
  connect(m_partButtons, &QButtonGroup::idClicked, m_parts, &QStackedWidget::setCurrentIndex);
  m_beside = new FillingCombo;
  m_beside->setObjectName("besideSet");
  m_beside->setAccessibleName("a second set of tanks beside these");
  m_beside->addItem("Second set beside…", "");
  m_beside->setMinimumContentsLength(20);
  static_cast<FillingCombo*>(m_beside)->fill = [this] {
    m_beside->clear();
    m_beside->addItem("Second set beside…", "");
    if (!m_desk.isOpen()) return;
    const auto heads = m_desk.book().store().list(book::Kind::Formula, false);
    if (!heads) return;
    for (const auto& head : *heads) {
      if (head.ref.uid != m_desk.inHand().uid) m_beside->addItem(QString::fromStdString(head.name), QString::fromStdString(head.ref.uid));
    }
  };
  connect(m_beside, &QComboBox::activated, this, [this] {
    const auto uid = m_beside->currentData().toString().toStdString();
    StockEdits(m_editor).setDosing(uid.empty() ? QString("no second set") : "second set: " + m_beside->currentText(), "beside", uid.empty() ? Json() : Json(uid), false);
  });
  bar->addStretch();
  bar->addWidget(m_beside);
  column->addLayout(bar);
  column->addWidget(m_parts, 1);
  return box;
}

void StocksPage::showPart(Part part) {
  m_partButtons->button(static_cast<int>(part))->click();
}

void StocksPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  refresh();
}

/// Cards for as many tanks as there are.
void StocksPage::makeCards() {
  const auto count = m_editor.answer().stock.tanks.size();
  while (m_cards.size() > count) {
    m_cards.back()->deleteLater();
    m_cards.back()->hide();
    m_cards.pop_back();
  }
  while (m_cards.size() < count) {
    const auto index = m_cards.size();
    auto* card = new TankCard(m_editor, m_units, index);
    connect(card, &TankCard::message, this, &StocksPage::message);
    connect(card->items(), &TankItems::dragging, this, &StocksPage::aimAt);
    connect(card->items(), &TankItems::dropped, this, [this, index](const std::string& product, const QPoint& at, bool half) { drop(index, product, at, half); });
    connect(card->items(), &TankItems::stepped, this, [this, index](const std::string& product, int by, bool half) {
      const int to = static_cast<int>(index) + by;
      if (to < 0 || to >= static_cast<int>(m_cards.size())) return;
      StockEdits(m_editor).move(product, index, static_cast<std::size_t>(to), half);
      m_cards[static_cast<std::size_t>(to)]->items()->setFocus();
    });
    connect(card->items(), &TankItems::toRules, this, [this](const std::string& product) { StockEdits(m_editor).byRules(product); });
    m_cardRow->addWidget(card, 1);
    m_cards.push_back(card);
  }
}

int StocksPage::cardAt(const QPoint& global) const {
  for (std::size_t i = 0; i < m_cards.size(); ++i) {
    if (m_cards[i]->rect().contains(m_cards[i]->mapFromGlobal(global))) return static_cast<int>(i);
  }
  return -1;
}

void StocksPage::aimAt(const QPoint& global) {
  const int at = global.isNull() ? -1 : cardAt(global);
  for (std::size_t i = 0; i < m_cards.size(); ++i)
    m_cards[i]->setAim(static_cast<int>(i) == at);
}

void StocksPage::drop(std::size_t from, const std::string& product, const QPoint& global, bool half) {
  const int to = cardAt(global);
  if (to >= 0 && to != static_cast<int>(from)) StockEdits(m_editor).move(product, from, static_cast<std::size_t>(to), half);
}

void StocksPage::refreshRuler() {
  const auto& shelf = m_editor.document().given.request.shelf;
  std::vector<StrengthRuler::Mark> marks;
  for (const auto& content : m_editor.answer().stock.tanks) {
    if (content.items.empty() || content.tank.ownFactor || content.tank.use == core::TankUse::Acid) continue;
    StrengthRuler::Mark mark{QString::fromStdString(content.tank.name), content.maxFactorOfKnown.value_or(0), content.safeFactor.value_or(0), {}};
    mark.limitedBy = QString::fromStdString(content.limitingProduct ? m_editor.nameOf(shelf[*content.limitingProduct].id) : words::solidName(content.limitingSolid));
    marks.push_back(std::move(mark));
  }
  m_ruler->show(m_editor.document().given.stock.factor, std::move(marks));
}

void StocksPage::refreshApart() {
  const auto& answer = m_editor.answer();
  const auto& shelf = m_editor.document().given.request.shelf;
  QStringList lines;
  for (const auto j : answer.stock.notPlaced) {
    const auto mass = answer.solution.grams[j];
    const auto& p = shelf[j];
    const auto liquid = p.densityKgPerL ? QString(" (%1)").arg(m_units.stockText(core::Volume::fromLitres(mass.kilograms() / *p.densityKgPerL))) : QString();
    lines << QString("Apart: %1%2 %3 per %4 of feed").arg(m_units.text(mass), liquid, QString::fromStdString(m_editor.nameOf(p.id)), m_units.text(m_editor.document().given.request.volume));
  }
  for (const auto& notice : answer.stock.notices) {
    using core::StockWarning;
    const bool grave = notice.kind == StockWarning::ChelateMeetsAcid || notice.kind == StockWarning::AcidMeetsWeakSalt || notice.kind == StockWarning::AcidMeetsHypochlorite ||
                       notice.kind == StockWarning::WhollyTooStrong || notice.kind == StockWarning::WaterFallsOut;
    if (grave) lines << "▲ " + QString::fromStdString(words::stockNoticeText(notice, [this](const std::string& id) { return m_editor.nameOf(id); }));
  }
  m_apart->setText(lines.join("\n"));
  m_apart->setVisible(!lines.isEmpty());
}

/// Another formula's tanks beside these: the same water, another crop.
void StocksPage::refreshBeside() {
  const auto& uid = m_editor.document().dosing.besideUid;
  m_besideText->setVisible(!uid.empty());
  if (uid.empty()) return m_beside->setCurrentIndex(0);
  const auto record = m_desk.isOpen() ? m_desk.book().record({book::Kind::Formula, uid}) : core::Result<std::optional<book::Record>>(std::optional<book::Record>{});
  const auto other = record && *record ? exchange::readFormulaDocument((*record)->body) : core::Result<exchange::FormulaDocument>(core::Problem{});
  const auto answer = other ? core::compute(other->given) : core::Result<core::Answer>(core::Problem{});
  if (!answer) return m_besideText->setText("The second set's formula is not in this book any more.");
  QStringList tanks;
  for (const auto& content : answer->stock.tanks) {
    if (content.items.empty()) continue;
    tanks << QString("<b>%1 · %2</b> %3 of salts in %4%5")
                 .arg(QString::fromStdString(content.tank.name).toHtmlEscaped(), QString::fromStdString(words::tankSide(other->given.request.shelf, content)), m_units.text(content.total()),
                      m_units.text(content.tank.volume), content.maxFactorOfKnown ? QString(", clear up to 1:%1").arg(QString::fromStdString(words::ceilingFigure(*content.maxFactorOfKnown))) : QString());
  }
  const bool sameRatio = std::abs(other->given.stock.factor - m_editor.document().given.stock.factor) < 1e-9;
  m_besideText->setText(QString("Second set, <b>%1</b> at 1:%2%3: %4. EC %5.")
                            .arg(QString::fromStdString(other->name).toHtmlEscaped(), localFigure(other->given.stock.factor), sameRatio ? QString() : QString(" (▲ another ratio than this set)"),
                                 tanks.join("; "), m_units.text(answer->feed.conductivity)));
}

/// How much feed the tanks make before the first is empty.
QString StocksPage::makesText() const {
  const auto& answer = m_editor.answer().stock;
  if (!answer.feedMade) return {};
  QString first;
  double least = 0, most = 0;
  for (const auto& content : answer.tanks) {
    if (content.items.empty()) continue;
    const double feed = content.tank.volume.litres() * content.factor;
    if (first.isEmpty() || feed < least) {
      first = QString::fromStdString(content.tank.name);
      least = feed;
    }
    most = std::max(most, feed);
  }
  return "<span style='font-weight:normal'>; makes " + m_units.text(*answer.feedMade) +
         (most > least * 1.001 ? ", then " + first.toHtmlEscaped() + " is empty" : QString()) + "</span>";
}

void StocksPage::refresh() {
  if (!isVisible()) return; // showEvent() makes up for it
  makeCards();
  for (auto* card : m_cards)
    card->refresh();
  const auto& stock = m_editor.json()["stock"];
  const auto& plan = m_editor.document().given.stock;
  m_form->setCurrentIndex(m_form->findData(static_cast<int>(formOf(stock))));
  m_factor->show(QString::fromStdString(stock["factor"].get<std::string>()));
  m_coldest->show(stock["coldest"]["unit"] == "C" ? QString::fromStdString(stock["coldest"]["amount"].get<std::string>()) : localNumber(plan.temperature.celsius(), 1));
  m_margin->show(QString::fromStdString(stock.value("margin_percent", core::decimalText(plan.marginPercent))));
  const auto left = m_editor.document().given.request.alkalinityLeftMeqPerL;
  m_alkalinity->show(left ? QString::fromStdString(core::decimalText(*left)) : QString());
  const auto& answer = m_editor.answer().stock;
  m_dose->setText(m_units.dose(answer.doseMlPerLitre) + " of each" + makesText());
  m_dose->setToolTip(UnitsShown::doseInAll(answer.doseMlPerLitre));
  refreshRuler();
  refreshApart();
  refreshBeside();
}

} // namespace butte::app
