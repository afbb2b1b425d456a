#include "stations/bench/scale_check_dialog.h"

#include "base/decimal.h"
#include "document/book_desk.h"
#include "document/formula_editor.h"
#include "edits/scale_checks.h"
#include "fields/number_field.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "services/units_shown.h"
#include "stations/bench/run_words.h"
#include "units/convert.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QComboBox>
#include <QDateTime>
#include <QHBoxLayout>
#include <QLocale>
#include <QPainter>
#include <QPushButton>
#include <QVBoxLayout>
#include <cmath>

namespace butte::app {

namespace {

constexpr int driftHeight = 120, fieldWidth = 130;
constexpr std::size_t mostListed = 6;

QString signedText(const QString& text, double value) {
  return (value > 0 ? "+" : "") + text;
}

} // namespace

QString scaleErrorWords(const book::ScaleCheck& check, core::Mass step, const UnitsShown& units) {
  constexpr int percentDecimals = 2;
  constexpr double nearly = 1e-9;
  const auto error = check.error();
  const bool within = std::abs(error.grams()) <= step.grams() * (1 + nearly);
  const auto off =
      tr("off by %1 (%2 %)")
          .arg(signedText(units.text(error), error.grams()),
               signedText(localNumber(check.errorPercent(), percentDecimals), check.errorPercent()));
  if (std::abs(error.grams()) <= nearly) return tr("shows it right");
  return within ? tr("%1, within its step").arg(off) : tr("▲ %1: calibrate it, or weigh elsewhere").arg(off);
}

QString lastCheckWords(BookDesk& desk, const std::vector<core::Scale>& scales, const std::string& scale,
                       const UnitsShown& units) {
  const auto last = ScaleChecks(desk).lastOf(scale);
  if (!last) return tr("never checked with a known weight");
  const auto day = QLocale().toString(QDateTime::fromSecsSinceEpoch(last->at.seconds), "d MMM");
  return tr("checked %1: %2").arg(day, scaleErrorWords(*last, stepOfScale(scales, scale), units));
}

ScaleDrift::ScaleDrift(const UnitsShown& units, QWidget* parent) : QWidget(parent), m_units(units) {
  setObjectName("scaleDrift");
  setAccessibleName(tr("how far the scale was off, over time"));
  setMinimumHeight(driftHeight);
}

void ScaleDrift::show(std::vector<book::ScaleCheck> checks, core::Mass step) {
  m_checks = std::move(checks);
  m_step = step;
  update();
}

void ScaleDrift::paintEvent(QPaintEvent*) {
  if (m_checks.empty()) return;
  constexpr double leastSteps = 2, margin = 12, radius = 5, half = 0.5;
  const auto& t = theme();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  double most = leastSteps * m_step.grams();
  for (const auto& check : m_checks)
    most = std::max(most, std::abs(check.error().grams()));
  const auto first = static_cast<double>(m_checks.back().at.seconds);
  const double span = std::max(1.0, static_cast<double>(m_checks.front().at.seconds) - first);
  const double middle = height() * half, room = middle - margin;
  const auto y = [&](double grams) { return most > 0 ? middle - grams / most * room : middle; };
  const auto x = [&](const book::ScaleCheck& check) {
    const double at = m_checks.size() > 1 ? (static_cast<double>(check.at.seconds) - first) / span : half;
    return margin + at * (width() - 2 * margin);
  };
  p.fillRect(QRectF(0, y(m_step.grams()), width(), y(-m_step.grams()) - y(m_step.grams())), t.band);
  p.setPen(QPen(t.targetMark, 1));
  p.drawLine(QPointF(0, middle), QPointF(width(), middle));
  for (std::size_t i = 0; i < m_checks.size(); ++i) {
    const QPointF at(x(m_checks[i]), y(m_checks[i].error().grams()));
    if (i > 0) p.drawLine(at, QPointF(x(m_checks[i - 1]), y(m_checks[i - 1].error().grams())));
    p.setBrush(std::abs(m_checks[i].error().grams()) > m_step.grams() ? t.red : t.accent);
    p.drawEllipse(at, radius, radius);
  }
  p.setPen(t.inkSoft); // the axes: how much it was off, and when
  p.drawText(QRectF(4, 0, width(), margin * 2), Qt::AlignLeft | Qt::AlignTop,
             "+" + m_units.text(core::Mass::fromGrams(most)));
  p.drawText(QRectF(4, height() - margin * 2, width(), margin * 2), Qt::AlignLeft | Qt::AlignBottom,
             dayText(m_checks.back().at));
  if (m_checks.size() > 1)
    p.drawText(QRectF(0, height() - margin * 2, width() - 4, margin * 2), Qt::AlignRight | Qt::AlignBottom,
               dayText(m_checks.front().at));
}

ScaleCheckDialog::ScaleCheckDialog(BookDesk& desk, const FormulaEditor& editor, const UnitsShown& units,
                                   DeviceDesk& devices, QWidget* parent)
    : QDialog(parent), m_desk(desk), m_editor(editor), m_units(units), m_devices(devices),
      m_scale(new QComboBox), m_known(new NumberField({tr("the known weight"), "", 0, 1e6, true})),
      m_shown(new NumberField({tr("what the scale shows"), "", 0, 1e6, true})), m_unit(new PlainLabel),
      m_live(new WrappedLabel), m_verdict(new WrappedLabel), m_list(new PlainLabel),
      m_drift(new ScaleDrift(units)) {
  setObjectName("scaleCheckDialog");
  setWindowTitle(tr("A scale and a known weight"));
  m_scale->setObjectName("checkScale");
  m_scale->setAccessibleName(tr("scale"));
  for (const auto& one : editor.document().scales)
    if (!one.spoons) m_scale->addItem(qtext(one.name));
  m_known->setObjectName("checkKnown");
  m_shown->setObjectName("checkShown");
  for (auto* field : {m_known, m_shown}) {
    field->setFixedWidth(fieldWidth);
    field->asked = [this] { return AskedUnit{unit(), {}}; };
    field->onMessage = [this](const QString& words) { m_verdict->setText(words); };
  }
  m_verdict->setObjectName("checkVerdict");
  m_verdict->setFont(faceOf(16, true));
  m_list->setObjectName("checkList");
  auto* row = new QHBoxLayout;
  for (QWidget* part : std::initializer_list<QWidget*>{m_scale, new PlainLabel(tr("on it lies")), m_known,
                                                       new PlainLabel(tr("it shows")), m_shown, m_unit})
    row->addWidget(part);
  auto* keep = new QPushButton(tr("Into the book"));
  keep->setObjectName("keepCheck");
  keep->setProperty("primary", true);
  row->addWidget(keep);
  row->addStretch();
  auto* column = new QVBoxLayout(this);
  column->addLayout(row);
  for (QWidget* part : std::initializer_list<QWidget*>{m_live, m_verdict, m_drift, m_list})
    column->addWidget(part);
  column->addStretch();
  resize(760, 420);
  connect(keep, &QPushButton::clicked, this, &ScaleCheckDialog::keep);
  connect(m_scale, &QComboBox::currentIndexChanged, this, &ScaleCheckDialog::refresh);
  connect(&devices, &DeviceDesk::changed, this, &ScaleCheckDialog::followScale);
  refresh();
}

std::string ScaleCheckDialog::scale() const {
  return m_scale->currentText().toStdString();
}

std::string ScaleCheckDialog::unit() const {
  for (const auto& one : m_editor.document().scales)
    if (one.name == scale()) return one.unit;
  return m_units.massUnit().toStdString();
}

core::Mass ScaleCheckDialog::step() const {
  return stepOfScale(m_editor.document().scales, scale());
}

void ScaleCheckDialog::refresh() {
  m_unit->setText(QString::fromStdString(unit()));
  const auto checks = ScaleChecks(m_desk).of(scale());
  m_drift->setVisible(!checks.empty());
  m_drift->show(checks, step());
  QStringList lines;
  for (std::size_t i = 0; i < std::min(checks.size(), mostListed); ++i) {
    const auto day = QLocale().toString(QDateTime::fromSecsSinceEpoch(checks[i].at.seconds), "d MMM yyyy");
    lines << day + "   " + m_units.text(checks[i].knownMass()) + "   " +
                 scaleErrorWords(checks[i], step(), m_units);
  }
  m_list->setText(lines.isEmpty() ? tr("This scale has not been checked yet.") : lines.join("\n"));
  followScale();
}

/// What it shows comes by itself where it hangs on a cable.
void ScaleCheckDialog::followScale() {
  const auto* device = m_devices.scale(m_scale->currentText());
  const auto now = device ? device->scaleNow() : devices::WatchNow{};
  const bool heard = device && now.state != devices::WatchState::Silent;
  m_live->setVisible(heard);
  if (!heard) return;
  m_live->setText(tr("The cable says %1").arg(displayOf(now).text(now.shown)));
  if (now.still && !m_shown->hasFocus() && now.shown > core::Mass{})
    m_shown->show(QString::fromStdString(core::decimalText(*core::convert(now.shown.grams(), "g", unit()))));
}

void ScaleCheckDialog::keep() {
  if (m_known->isWrong() || m_shown->isWrong()) return;
  if (m_known->digits().isEmpty() || m_shown->digits().isEmpty() || m_known->digits().toDouble() <= 0)
    return m_verdict->setText(tr("Type the weight that is known, and what the scale shows for it."));
  book::ScaleCheck check;
  check.at = book::Moment::now();
  check.scale = scale();
  check.known = {m_known->digits().toStdString(), unit()};
  check.shown = {m_shown->digits().toStdString(), unit()};
  if (const auto trouble = ScaleChecks(m_desk).keep(check)) return m_verdict->setText(problemWords(*trouble));
  m_verdict->setText(scaleErrorWords(check, step(), m_units));
  m_known->show({});
  m_shown->show({});
  refresh();
}

} // namespace butte::app
