#include "stations/target/target_wishes.h"

#include "document/formula_editor.h"
#include "fields/number_field.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "stations/while_seen.h"
#include "words.h"

#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QToolButton>
#include <QVBoxLayout>

namespace butte::app {

using exchange::Json;

namespace {

/// Ratios that growers speak of, on the basis they usually count by (common practice).
struct UsualRatio {
  const char* name;
  std::vector<std::string> above, below;
  const char *basis, *value;
};
const std::vector<UsualRatio>& usualRatios() {
  static const std::vector<UsualRatio> list{
      {"N : K by weight", {"N"}, {"K"}, "mass", "0.75"},
      {"K : Ca by weight", {"K"}, {"Ca"}, "mass", "1.5"},
      {"Ca : Mg by weight", {"Ca"}, {"Mg"}, "mass", "4"},
      {"K : (Ca + Mg) in meq", {"K"}, {"Ca", "Mg"}, "equivalents", "0.6"},
      {"N : P by weight", {"N"}, {"P"}, "mass", "4"},
      {"NH₄ : N in mmol", {"N_NH4"}, {"N"}, "moles", "0.07"}};
  return list;
}

QString sideText(const std::vector<core::Nutrient>& side) {
  QStringList parts;
  for (const auto n : side)
    parts << QString::fromStdString(words::nutrientSymbol(n));
  return parts.size() > 1 ? "(" + parts.join(" + ") + ")" : parts.join("");
}

QString basisText(core::RatioBasis basis) {
  return basis == core::RatioBasis::Mass    ? "by weight"
         : basis == core::RatioBasis::Moles ? "in mmol"
                                            : "in meq";
}

} // namespace

TargetWishes::TargetWishes(FormulaEditor& editor, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_ratios(new QVBoxLayout), m_add(new QComboBox) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  m_ratios->setSpacing(2);
  column->addLayout(m_ratios);
  m_add->setObjectName("addRatio");
  m_add->setAccessibleName("wish for a ratio");
  m_add->addItem("Wish for a ratio…");
  for (const auto& usual : usualRatios())
    m_add->addItem(usual.name);
  connect(m_add, &QComboBox::activated, this, &TargetWishes::addRatio);
  column->addWidget(m_add);
  auto* caps = new QGridLayout;
  caps->setHorizontalSpacing(5);
  caps->addWidget(new QLabel("No more than, mg/L"), 0, 0, 1, 4);
  const std::pair<const char*, const char*> capped[] = {
      {"Na", "sodium"}, {"Cl", "chloride"}, {"N_NH4", "ammonium-N"}, {"B", "boron"}};
  int at = 0;
  for (const auto& [key, name] : capped) {
    auto* field = new NumberField({QString("most ") + name, "mg/L", 0, 10000, true});
    field->setObjectName(QString("cap_") + key);
    field->setFixedWidth(56);
    field->setPlaceholderText("any");
    field->onTyped = [this, k = std::string(key), n = QString(name)](const QString& digits) {
      capTyped(k, n, digits);
    };
    field->onMessage = [this](const QString& words) { emit message(words); };
    caps->addWidget(new QLabel(name), 1 + at / 2, at % 2 * 2);
    caps->addWidget(field, 1 + at / 2, at % 2 * 2 + 1);
    m_caps.emplace_back(key, field);
    ++at;
  }
  caps->setColumnStretch(4, 1);
  column->addLayout(caps);
  column->addLayout(makeEnd());
  auto* fresh = new WhileSeen(this, [this] { refresh(); });
  connect(&editor, &FormulaEditor::changed, fresh, &WhileSeen::outdate);
  refresh();
}

/// Where the feed shall end: its pH, and the alkalinity that acid leaves as a buffer.
QLayout* TargetWishes::makeEnd() {
  auto* row = new QHBoxLayout;
  row->setSpacing(5);
  m_ph = new NumberField({"pH wanted", "", 2, 12});
  m_ph->setObjectName("targetPh");
  m_ph->setFixedWidth(48);
  m_ph->onTyped = [this](const QString& digits) {
    Json acid = m_editor.json().value("acid", Json::object());
    if (!acid.is_object()) acid = Json::object();
    acid["target_ph"] = digits.toStdString();
    m_editor.set("pH wanted " + digits, "/acid", acid, true);
  };
  m_left = new NumberField({"alkalinity left", "meq/L", 0, 100, true});
  m_left->setObjectName("targetAlkalinityLeft");
  m_left->setFixedWidth(48);
  m_left->setPlaceholderText("all");
  m_left->setToolTip(
      "What acid leaves of the water's alkalinity, as a buffer. Empty: no acid is dosed into the recipe.");
  m_left->onTyped = [this](const QString& digits) {
    m_editor.set(digits.isEmpty() ? QString("no acid in the recipe") : "alkalinity left " + digits + " meq/L",
                 "/alkalinity_left",
                 digits.isEmpty() ? Json() : exchange::amountJson(digits.toStdString(), "meq/L"), true);
  };
  for (auto* field : {m_ph, m_left})
    field->onMessage = [this](const QString& words) { emit message(words); };
  row->addWidget(new QLabel("pH"));
  row->addWidget(m_ph);
  row->addWidget(new QLabel("alkalinity left"));
  row->addWidget(m_left);
  row->addWidget(new QLabel("meq/L"));
  row->addStretch();
  return row;
}

void TargetWishes::rebuildRatios(std::size_t count) {
  for (auto* row : m_rows) {
    row->hide();
    row->deleteLater();
  }
  m_rows.clear();
  for (std::size_t i = 0; i < count; ++i) {
    auto* box = new QWidget;
    auto* row = new QHBoxLayout(box);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(5);
    auto* name = new QLabel;
    name->setObjectName(QString("ratioName%1").arg(i));
    auto* value = new NumberField({"wished ratio", "", 0.0001, 10000});
    value->setObjectName(QString("ratioValue%1").arg(i));
    value->setFixedWidth(56);
    value->onTyped = [this, i](const QString& digits) { setRatio(i, "value", digits, "ratio to " + digits); };
    auto* band = new NumberField({"band of the ratio", "%", 0, 99});
    band->setObjectName(QString("ratioBand%1").arg(i));
    band->setFixedWidth(44);
    band->onTyped = [this, i](const QString& digits) {
      setRatio(i, "tolerance_percent", digits, "band of the ratio to ±" + digits + " %");
    };
    auto* now = new QLabel;
    now->setObjectName(QString("ratioNow%1").arg(i));
    now->setProperty("soft", true);
    auto* remove = new QToolButton;
    remove->setObjectName(QString("removeRatio%1").arg(i));
    remove->setText("×");
    remove->setAccessibleName("wish for it no longer");
    connect(remove, &QToolButton::clicked, this, [this, i] {
      Json ratios = m_editor.json()["target"]["ratios"];
      ratios.erase(i);
      m_editor.set("ratio no longer wished for", "/target/ratios", ratios);
    });
    row->addWidget(name, 1);
    row->addWidget(value);
    row->addWidget(new QLabel("±"));
    row->addWidget(band);
    row->addWidget(new QLabel("%"));
    row->addWidget(now);
    row->addWidget(remove);
    m_ratios->addWidget(box);
    m_rows.push_back(box);
  }
}

void TargetWishes::refresh() {
  const auto& request = m_editor.document().given.request;
  if (m_rows.size() != request.ratios.size()) rebuildRatios(request.ratios.size());
  const auto target = m_editor.json()["target"];
  for (std::size_t i = 0; i < m_rows.size(); ++i) {
    const auto& wish = request.ratios[i];
    const auto& json = target["ratios"][i];
    const auto is = core::ratioOf(wish, m_editor.answer().feed.milligramsPerLitre);
    const auto child = [&](const char* name) { return QString(name) + QString::number(i); };
    m_rows[i]
        ->findChild<QLabel*>(child("ratioName"))
        ->setText(sideText(wish.above) + " : " + sideText(wish.below) + " " + basisText(wish.basis));
    m_rows[i]
        ->findChild<NumberField*>(child("ratioValue"))
        ->show(QString::fromStdString(json.value("value", "")));
    m_rows[i]
        ->findChild<NumberField*>(child("ratioBand"))
        ->show(QString::fromStdString(json.value("tolerance_percent", std::string("10"))));
    m_rows[i]
        ->findChild<QLabel*>(child("ratioNow"))
        ->setText(is ? (wish.contains(*is) ? "is " : "▲ is ") + localNumber(*is, 2) : QString("–"));
  }
  m_ph->show(QString::number(m_editor.document().given.acid.targetPh, 'g', 4));
  const auto& left = request.alkalinityLeftMeqPerL;
  m_left->show(left ? QString::number(*left, 'g', 4) : QString());
  for (const auto& [key, field] : m_caps) {
    QString digits;
    for (const auto& cap : target.value("caps", Json::array())) {
      if (cap["nutrient"] == key) digits = QString::fromStdString(cap["mg_per_l"].get<std::string>());
    }
    field->show(digits);
  }
}

void TargetWishes::addRatio(int index) {
  m_add->setCurrentIndex(0);
  if (index < 1 || index > static_cast<int>(usualRatios().size())) return;
  const auto& usual = usualRatios()[static_cast<std::size_t>(index - 1)];
  Json target = m_editor.json()["target"];
  Json ratios = target.value("ratios", Json::array());
  std::string value = usual.value;
  // Where the target itself says both, its own ratio is what is meant.
  core::NutrientAmounts wanted;
  for (const auto& row : m_editor.document().given.request.rows)
    wanted.add(row.nutrient, row.milligramsPerLitre);
  core::RatioWish wish;
  for (const auto& key : usual.above)
    wish.above.push_back(*core::nutrientFromKey(key));
  for (const auto& key : usual.below)
    wish.below.push_back(*core::nutrientFromKey(key));
  wish.basis = std::string(usual.basis) == "mass"    ? core::RatioBasis::Mass
               : std::string(usual.basis) == "moles" ? core::RatioBasis::Moles
                                                     : core::RatioBasis::Equivalents;
  if (const auto own = core::ratioOf(wish, wanted); own && *own > 0)
    value = QString::number(*own, 'g', 3).toStdString();
  ratios.push_back({{"above", usual.above},
                    {"below", usual.below},
                    {"value", value},
                    {"basis", usual.basis},
                    {"tolerance_percent", "10"}});
  m_editor.set(QString("wish for ") + usual.name, "/target/ratios", ratios);
}

void TargetWishes::setRatio(std::size_t index, const char* key, const QString& digits, const QString& words) {
  m_editor.set(words, "/target/ratios/" + std::to_string(index) + "/" + key, digits.toStdString(), true);
}

void TargetWishes::capTyped(const std::string& nutrient, const QString& name, const QString& digits) {
  Json caps = Json::array();
  const auto old = m_editor.json()["target"].value("caps", Json::array());
  for (const auto& cap : old) {
    if (cap["nutrient"] != nutrient) caps.push_back(cap);
  }
  if (!digits.isEmpty()) caps.push_back({{"nutrient", nutrient}, {"mg_per_l", digits.toStdString()}});
  m_editor.set(digits.isEmpty() ? "no cap on " + name : QString("%1 at most %2 mg/L").arg(name, digits),
               "/target/caps", caps, true);
}

} // namespace butte::app
