#include "stations/target/target_table.h"

#include "base/decimal.h"
#include "document/formula_editor.h"
#include "edits/target_edits.h"
#include "fields/number_field.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "refresh/while_seen.h"
#include "services/units_shown.h"
#include "wording/tr.h"
#include "words.h"

#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QPaintEvent>
#include <QPainter>
#include <algorithm>
#include <utility>

namespace butte::app {

using core::Nutrient;

namespace {

constexpr Nutrient shown[] = {Nutrient::N,  Nutrient::NNitrate, Nutrient::NAmmonium, Nutrient::P,
                              Nutrient::K,  Nutrient::Ca,       Nutrient::Mg,        Nutrient::S,
                              Nutrient::Si, Nutrient::Fe,       Nutrient::Mn,        Nutrient::Zn,
                              Nutrient::B,  Nutrient::Cu,       Nutrient::Mo};

QString keyOf(Nutrient n) {
  return QString::fromStdString(std::string(core::nutrientKey(n)));
}
QString nameOf(Nutrient n) {
  return QString::fromStdString(words::nutrientName(n));
}

double wantedOf(const std::vector<core::TargetRow>& rows, Nutrient n) {
  for (const auto& row : rows) {
    if (row.nutrient == n) return row.milligramsPerLitre;
  }
  return 0;
}

} // namespace

TargetTable::TargetTable(FormulaEditor& editor, QWidget* parent) : QWidget(parent), m_editor(editor) {
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setHorizontalSpacing(6);
  grid->setVerticalSpacing(3);
  grid->setColumnStretch(6, 1);
  int line = 0;
  for (const auto n : shown)
    addRow(n, line++);
  grid->setRowStretch(line, 1);
  auto* fresh = new WhileSeen(this, [this] { refresh(); });
  connect(&editor, &FormulaEditor::changed, fresh, &WhileSeen::outdate);
  refresh();
}

void TargetTable::addRow(Nutrient n, int line) {
  auto* grid = static_cast<QGridLayout*>(layout());
  Row row;
  row.nutrient = n;
  row.amount = new NumberField({tr("%1 target").arg(nameOf(n)), "", 0, 10000, true});
  row.amount->setObjectName("target_" + keyOf(n));
  row.amount->setPlaceholderText(tr("free"));
  row.amount->setFixedWidth(72);
  row.amount->onTyped = [this, n](const QString& digits) { amountTyped(n, digits); };
  row.unit = new QComboBox;
  row.unit->setObjectName("targetUnit_" + keyOf(n));
  row.unit->setAccessibleName(tr("unit of %1").arg(nameOf(n)));
  for (const auto& unit : exchange::targetUnits())
    row.unit->addItem(QString::fromStdString(unit));
  row.unit->setFixedWidth(82);
  row.amount->asked = [n, box = row.unit] {
    return AskedUnit{box->currentText().toStdString(), std::string(core::elementSymbol(n))};
  };
  connect(row.unit, &QComboBox::activated, this,
          [this, n, box = row.unit] { unitChosen(n, box->currentText()); });
  row.band = new NumberField({tr("%1 band").arg(nameOf(n)), "%", 0, 1000});
  row.band->setObjectName("band_" + keyOf(n));
  row.band->setFixedWidth(48);
  row.band->onTyped = [this, n](const QString& digits) { bandTyped(n, digits); };
  for (auto* field : {row.amount, row.band})
    field->onMessage = [this](const QString& words) { emit message(words); };
  row.room = new QWidget;
  row.room->setMinimumWidth(46);
  auto* name = new PlainLabel(
      QString("<b>%1</b> %2").arg(QString::fromStdString(words::nutrientSymbol(n)), nameOf(n)));
  name->setTextFormat(Qt::RichText);
  grid->addWidget(name, line, 0);
  grid->addWidget(row.amount, line, 1);
  grid->addWidget(row.unit, line, 2);
  grid->addWidget(new PlainLabel("±"), line, 3);
  grid->addWidget(row.band, line, 4);
  grid->addWidget(new PlainLabel("%"), line, 5);
  grid->addWidget(row.room, line, 6);
  m_rows.push_back(row);
}

void TargetTable::compareWith(std::vector<core::TargetRow> other) {
  m_other = std::move(other);
  refresh();
  update();
}

void TargetTable::refresh() {
  const auto typedRows = TargetEdits(m_editor).rows();
  for (auto& row : m_rows) {
    if (const auto bar = barOf(row.nutrient); bar != std::exchange(row.bar, bar))
      update(row.room->geometry());
    const auto typed = std::ranges::find(typedRows, row.nutrient, &TypedTargetRow::nutrient);
    row.band->setEnabled(typed != typedRows.end());
    if (typed == typedRows.end()) {
      row.amount->show({});
      row.band->show({});
      const auto chosen = m_emptyUnit.find(row.nutrient);
      row.unit->setCurrentText(chosen == m_emptyUnit.end() ? QString("mg/L")
                                                           : QString::fromStdString(chosen->second));
      continue;
    }
    row.amount->show(QString::fromStdString(typed->figure.digits));
    row.unit->setCurrentText(QString::fromStdString(typed->figure.unit));
    row.band->show(QString::fromStdString(typed->tolerancePercent));
    const double mg = wantedOf(m_editor.document().given.request.rows, row.nutrient);
    row.amount->setToolTip(tr("%1 mg/L · %2 mmol/L · %3 meq/L")
                               .arg(localFigure(mg),
                                    localFigure(exchange::targetIn(row.nutrient, mg, "mmol/L")),
                                    localFigure(exchange::targetIn(row.nutrient, mg, "meq/L"))));
  }
}

TargetTable::Bar TargetTable::barOf(Nutrient nutrient) const {
  const auto& rows = m_editor.document().given.request.rows;
  Bar out{wantedOf(rows, nutrient), m_editor.answer().feed.milligramsPerLitre.of(nutrient),
          wantedOf(m_other, nutrient), 0, 0};
  for (const auto& target : rows) {
    if (target.nutrient == nutrient) out.bandLow = target.bandLow(), out.bandHigh = target.bandHigh();
  }
  return out;
}

void TargetTable::amountTyped(Nutrient nutrient, const QString& digits) {
  const auto known = m_emptyUnit.find(nutrient);
  const auto row = TargetEdits(m_editor).row(nutrient);
  const auto unit = row ? row->figure.unit : known != m_emptyUnit.end() ? known->second : std::string("mg/L");
  TargetEdits(m_editor).setFigure(nutrient, {digits.toStdString(), unit});
}

/// The figure is turned, so that the target stays what it was.
void TargetTable::unitChosen(Nutrient nutrient, const QString& unit) {
  m_emptyUnit[nutrient] = unit.toStdString();
  TargetEdits(m_editor).setUnit(nutrient, unit.toStdString());
}

void TargetTable::bandTyped(Nutrient nutrient, const QString& digits) {
  TargetEdits(m_editor).setTolerance(nutrient, digits);
}

void TargetTable::paintEvent(QPaintEvent* event) {
  QPainter painter(this);
  for (const auto& row : m_rows) {
    if (event->region().intersects(row.room->geometry())) paintBar(painter, row);
  }
}

/// What the formula gives, against the target's mark and band; another target hatched below. One scale within
/// the row.
void TargetTable::paintBar(QPainter& painter, const Row& row) const {
  const auto& t = theme();
  const auto& [mine, gives, other, bandLow, bandHigh] = row.bar;
  const double most = std::max({mine, other, mine > 0 ? std::min(gives, 2 * mine) : 0}) * 1.15;
  const QRectF room = QRectF(row.room->geometry()).adjusted(4, 3, -48, -3);
  if (most <= 0 || room.width() < 20) return;
  const bool two = !m_other.empty();
  const auto at = [&](double mg) { return room.left() + room.width() * std::clamp(mg / most, 0.0, 1.0); };
  const QRectF bar(room.left(), room.top(), at(gives) - room.left(),
                   two ? room.height() * 0.55 : room.height());
  painter.fillRect(QRectF(at(bandLow), bar.top(), at(bandHigh) - at(bandLow), bar.height()), t.band);
  painter.fillRect(bar.adjusted(0, 3, 0, -3), t.accent);
  if (mine > 0) painter.fillRect(QRectF(at(mine) - 1, bar.top(), 2.5, bar.height()), t.targetMark);
  if (!two) return;
  painter.fillRect(QRectF(room.left(), bar.bottom() + 1, at(other) - room.left(), room.height() * 0.4),
                   QBrush(t.inkSoft, Qt::Dense4Pattern));
  painter.setFont(faceOf(11));
  painter.setPen(t.inkSoft);
  const auto percent = mine > 0 ? std::lround(std::abs(100 * (other / mine - 1))) : 0;
  const auto figure = other <= 0     ? tr("free")
                      : mine <= 0    ? localFigure(other)
                      : percent == 0 ? QString("same")
                                     : QString("%1%2 %").arg(other >= mine ? "+" : "−").arg(percent);
  painter.drawText(QRectF(room.right() + 2, room.top(), 46, room.height()), Qt::AlignVCenter | Qt::AlignRight,
                   figure);
}

} // namespace butte::app
