#include "stations/tank/stream_rows.h"

#include "deed_words.h"
#include "edits/stream_edits.h"
#include "fields/number_field.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QComboBox>
#include <QGridLayout>
#include <QVBoxLayout>
#include <algorithm>

namespace butte::app {

using book::StreamChannel;

namespace {

constexpr int saysWidth = 110, keyWidth = 150, factorWidth = 70;
constexpr double mostFactor = 1e9;

QString unitWords(const std::string& unit) {
  if (unit.empty()) return tr("a number");
  if (unit == "cm") return tr("cm above the floor");
  if (unit == "%") return tr("% of the full mark");
  return qtext(words::unitName(unit));
}

/// Channels that are mapped, then what else was heard.
std::vector<StreamChannel> rowsOf(const book::Stream& stream, const std::vector<HeardFigure>& heard) {
  auto out = stream.channels;
  for (const auto& figure : heard) {
    const bool known = std::any_of(out.begin(), out.end(),
                                   [&](const StreamChannel& channel) { return channel.key == figure.key; });
    if (known || out.size() >= book::mostChannels) continue;
    StreamChannel fresh;
    fresh.key = figure.key;
    if (const auto meant = quantityMeant(figure.key); !meant.empty()) fresh.quantity = meant;
    fresh.unit = unitMeant(fresh.quantity, figure.unit);
    out.push_back(std::move(fresh));
  }
  return out;
}

QComboBox* listOf(const QString& name, const QString& object) {
  auto* out = new QComboBox;
  out->setAccessibleName(name);
  out->setObjectName(object);
  out->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  out->setMinimumContentsLength(11);
  return out;
}

} // namespace

StreamRows::StreamRows(QWidget* parent) : QWidget(parent), m_grid(nullptr) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
}

void StreamRows::show(const book::Stream& stream, const std::vector<HeardFigure>& heard,
                      const std::vector<book::RecordHead>& vessels) {
  m_heard = heard;
  const auto channels = rowsOf(stream, heard);
  const bool same = channels == m_shown && std::equal(vessels.begin(), vessels.end(), m_vessels.begin(),
                                                      m_vessels.end(), [](const auto& a, const auto& b) {
                                                        return a.ref == b.ref && a.name == b.name;
                                                      });
  // What a hand just chose is there already: rows are not made anew under it.
  const bool asChosen =
      std::equal(channels.begin(), channels.end(), m_rows.begin(), m_rows.end(),
                 [](const auto& channel, const Row& row) { return channel == row.channel; });
  if (!same && (!asChosen || vessels.size() != m_vessels.size())) build(channels, vessels);
  m_shown = channels;
  for (auto& row : m_rows) {
    const auto said = std::find_if(heard.begin(), heard.end(),
                                   [&](const HeardFigure& figure) { return figure.key == row.channel.key; });
    row.says->setText(said == heard.end()  ? tr("not heard yet")
                      : said->unit.empty() ? qtext(said->text)
                                           : qtext(said->text + " " + said->unit));
  }
}

void StreamRows::build(const std::vector<StreamChannel>& channels,
                       const std::vector<book::RecordHead>& vessels) {
  delete m_inside;
  m_rows.clear();
  m_vessels = vessels;
  m_inside = new QWidget;
  m_grid = new QGridLayout(m_inside);
  m_grid->setContentsMargins(0, 0, 0, 0);
  m_grid->setHorizontalSpacing(8);
  layout()->addWidget(m_inside);
  if (channels.empty()) return;
  int place = 0;
  for (const auto& head : {tr("It calls it"), tr("says"), tr("is of"), tr("is the"), tr("in"), tr("times")}) {
    auto* label = new PlainLabel(head);
    label->setFont(faceOf(12, true));
    m_grid->addWidget(label, 0, place++);
  }
  for (const auto& channel : channels)
    m_rows.push_back(makeRow(channel, vessels, static_cast<int>(m_rows.size())));
  m_grid->setColumnStretch(2, 1);
  m_grid->setRowStretch(static_cast<int>(channels.size()) + 1, 1);
}

StreamRows::Row StreamRows::makeRow(const StreamChannel& channel,
                                    const std::vector<book::RecordHead>& vessels, int number) {
  const auto index = static_cast<std::size_t>(number);
  const auto object = [number](const char* name) { return name + QString::number(number); };
  Row row;
  row.channel = channel;
  row.key = new PlainLabel;
  row.key->setFixedWidth(keyWidth);
  // Of a long topic its end says what it is.
  row.key->setText(row.key->fontMetrics().elidedText(qtext(channel.key), Qt::ElideLeft, keyWidth));
  row.key->setToolTip(qtext(channel.key));
  row.says = new PlainLabel;
  row.says->setObjectName(object("streamSays"));
  row.says->setMinimumWidth(saysWidth);
  row.vessel = listOf(tr("of which vessel is %1").arg(qtext(channel.key)), object("streamVessel"));
  row.vessel->addItem(tr("not taken"), QString());
  for (const auto& vessel : vessels)
    row.vessel->addItem(qtext(vessel.name), qtext(vessel.ref.uid));
  row.vessel->setCurrentIndex(std::max(0, row.vessel->findData(qtext(channel.vesselUid))));
  row.quantity = listOf(tr("what is %1").arg(qtext(channel.key)), object("streamQuantity"));
  for (const auto& quantity : book::quantities())
    row.quantity->addItem(
        qtext(words::quantityName(std::string(quantity.code))),
        QString::fromUtf8(quantity.code.data(), static_cast<qsizetype>(quantity.code.size())));
  row.quantity->setCurrentIndex(std::max(0, row.quantity->findData(qtext(channel.quantity))));
  row.unit = listOf(tr("unit of %1").arg(qtext(channel.key)), object("streamUnit"));
  fillUnits(row);
  row.factor = new NumberField({.name = tr("factor of %1").arg(qtext(channel.key)),
                                .unit = {},
                                .least = -mostFactor,
                                .most = mostFactor,
                                .mayBeEmpty = true});
  row.factor->setObjectName(object("streamFactor"));
  row.factor->setPlaceholderText("1");
  row.factor->setMaximumWidth(factorWidth);
  row.factor->setToolTip(tr("What it sends is multiplied with this: 0.01 where 590 means pH 5.90"));
  row.factor->show(qtext(channel.factor));
  row.factor->onMessage = [this](const QString& said) { emit message(said); };
  row.factor->onTyped = [this, index](const QString& digits) {
    m_rows[index].channel.factor = digits.toStdString();
    tell();
  };
  connect(row.vessel, &QComboBox::activated, this, [this, index] { chosen(index, false); });
  connect(row.quantity, &QComboBox::activated, this, [this, index] { chosen(index, true); });
  connect(row.unit, &QComboBox::activated, this, [this, index] { chosen(index, false); });
  int place = 0;
  for (QWidget* part : {static_cast<QWidget*>(row.key), static_cast<QWidget*>(row.says),
                        static_cast<QWidget*>(row.vessel), static_cast<QWidget*>(row.quantity),
                        static_cast<QWidget*>(row.unit), static_cast<QWidget*>(row.factor)})
    m_grid->addWidget(part, number + 1, place++);
  return row;
}

void StreamRows::fillUnits(Row& row) {
  row.unit->clear();
  for (const auto& unit : book::sentUnits(row.channel.quantity))
    row.unit->addItem(unitWords(unit), qtext(unit));
  row.unit->setCurrentIndex(std::max(0, row.unit->findData(qtext(row.channel.unit))));
}

void StreamRows::chosen(std::size_t index, bool anotherQuantity) {
  auto& row = m_rows[index];
  row.channel.vesselUid = row.vessel->currentData().toString().toStdString();
  row.channel.quantity = row.quantity->currentData().toString().toStdString();
  if (anotherQuantity) {
    const auto said = std::find_if(m_heard.begin(), m_heard.end(),
                                   [&](const HeardFigure& figure) { return figure.key == row.channel.key; });
    row.channel.unit = unitMeant(row.channel.quantity, said == m_heard.end() ? std::string() : said->unit);
    fillUnits(row);
  } else {
    row.channel.unit = row.unit->currentData().toString().toStdString();
  }
  tell();
}

/// What is not taken is not kept either, unless it was put there by hand: a register.
void StreamRows::tell() {
  std::vector<StreamChannel> out;
  for (const auto& row : m_rows) {
    const bool heard = std::any_of(m_heard.begin(), m_heard.end(),
                                   [&](const HeardFigure& figure) { return figure.key == row.channel.key; });
    if (!row.channel.vesselUid.empty() || !heard || !row.channel.factor.empty()) out.push_back(row.channel);
  }
  if (onChanged) onChanged(out);
}

} // namespace butte::app
