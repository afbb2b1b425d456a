#include "stations/tank/stream_dialog.h"

#include "attached_devices.h"
#include "document/book_desk.h"
#include "fields/number_field.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "paint/scrolling.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "stations/tank/stream_rows.h"
#include "stream/modbus_register.h"
#include "stream/stream_address.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDateTime>
#include <QFormLayout>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <algorithm>

namespace butte::app {

using book::Stream;
using devices::StreamAddress;
using State = ports::StreamSource::State;

namespace {

QLineEdit* lineFor(const QString& name, const char* id) {
  auto* out = new QLineEdit;
  out->setAccessibleName(name);
  out->setObjectName(id);
  constexpr int longest = 500;
  out->setMaxLength(longest);
  return out;
}

/// One of each kind, for the hand to change.
std::vector<StreamAddress> exampleAddresses() {
  using devices::PortAddress;
  const auto at = [](const char* host, int port) {
    return PortAddress{.kind = PortAddress::Kind::Tcp, .path = host, .tcpPort = port};
  };
  return {{.kind = StreamAddress::Kind::File, .path = "/home/you/logger.csv"},
          {.kind = StreamAddress::Kind::Lines, .port = at("192.168.1.20", 4001)},
          {.kind = StreamAddress::Kind::Modbus, .port = at("192.168.1.30", 502)},
          {.kind = StreamAddress::Kind::Mqtt, .port = at("192.168.1.10", 1883), .topic = "glass/#"}};
}

} // namespace

StreamDialog::StreamDialog(BookDesk& desk, StreamDesk& streams, QWidget* parent)
    : QDialog(parent), m_streams(streams), m_edits(desk), m_tanks(desk), m_list(new QListWidget),
      m_name(lineFor(tr("name of the logger"), "streamName")),
      m_password(lineFor(tr("password of the broker"), "streamPassword")),
      m_register(lineFor(tr("a register"), "streamRegister")), m_address(new QComboBox),
      m_dates(new QComboBox), m_every(new NumberField({.name = tr("one reading is kept each"),
                                                       .unit = "min",
                                                       .least = book::leastEveryMinutes,
                                                       .most = book::mostEveryMinutes})),
      m_listens(new QCheckBox(tr("This computer listens to it"))), m_rows(new StreamRows),
      m_state(new WrappedLabel), m_day(new WrappedLabel), m_addRegister(nullptr), m_strikeDay(nullptr) {
  setObjectName("streamDialog");
  setWindowTitle(tr("Loggers"));
  m_list->setObjectName("streamList");
  m_list->setAccessibleName(tr("loggers"));
  auto* left = new QVBoxLayout;
  left->addWidget(m_list, 1);
  left->addWidget(button(tr("Another logger"), "addStream",
                         [this] { add(tr("logger").toStdString(), "file:/home/you/logger.csv", false); }));
  left->addWidget(button(tr("A stand-in to try"), "addStandIn", [this] {
    add(tr("stand-in tank").toStdString(), m_streams.startStandIn().toStdString(), true);
  }));
  left->addWidget(button(tr("Take it away"), "removeStream", [this] { takeAway(); }));
  auto* row = new QHBoxLayout(this);
  row->setSpacing(14);
  row->addLayout(left, 1);
  row->addWidget(makeForm(), 4);
  resize(1040, 620);
  connect(m_list, &QListWidget::currentRowChanged, this, &StreamDialog::choose);
  connect(&m_streams, &StreamDesk::changed, this, &StreamDialog::showHeard);
  connect(&desk, &BookDesk::changed, this, [this](const std::vector<book::Ref>& refs) {
    if (std::any_of(refs.begin(), refs.end(), [](const book::Ref& ref) {
          return ref.kind == book::Kind::Stream || ref.kind == book::Kind::Vessel ||
                 ref.kind == book::Kind::ReadingImport;
        }))
      showList();
  });
  showList();
}

QPushButton* StreamDialog::button(const QString& words, const char* id, std::function<void()> does) {
  auto* made = new QPushButton(words);
  made->setObjectName(id);
  made->setAutoDefault(false);
  connect(made, &QPushButton::clicked, this, std::move(does));
  return made;
}

QFormLayout* StreamDialog::makeHead() {
  auto* form = new QFormLayout;
  m_address->setObjectName("streamAddress");
  m_address->setAccessibleName(tr("where the logger is"));
  m_address->setEditable(true);
  m_address->lineEdit()->setMaxLength(1000);
  m_address->setToolTip(
      tr("file:/path of a table that grows; tcp:host:port or serial:/dev/ttyUSB0,9600,8N1 for lines; "
         "modbus:tcp:host:502 unit 1; mqtt:broker:1883/topic/#"));
  for (const auto& example : exampleAddresses())
    m_address->addItem(qtext(example.text()));
  for (const auto& device : ports::attachedDevices())
    m_address->addItem(qtext(devices::PortAddress{.path = device.path.toStdString()}.text()));
  m_password->setEchoMode(QLineEdit::Password);
  m_password->setPlaceholderText(tr("kept on this computer, not in the book"));
  m_dates->setObjectName("streamDates");
  m_dates->setAccessibleName(tr("how the logger writes dates"));
  m_dates->addItem(tr("3/4 is the 3rd of April"), false);
  m_dates->addItem(tr("3/4 is the 4th of March"), true);
  m_every->setObjectName("streamEvery");
  m_every->setMaximumWidth(70);
  m_listens->setObjectName("streamListens");
  form->addRow(tr("Name"), m_name);
  form->addRow(tr("Where it is"), m_address);
  m_passwordName = new PlainLabel(tr("Password"));
  form->addRow(m_passwordName, m_password);
  auto* pace = new FlowRow;
  pace->addTogether(
      {new PlainLabel(tr("one reading each")), m_every, new PlainLabel(tr("min, and every lasting change"))});
  pace->addWidget(m_dates);
  form->addRow(tr("Keep"), pace);
  form->addRow(QString(), m_listens);
  return form;
}

void StreamDialog::connectHead() {
  for (auto* field : {m_name, m_address->lineEdit()})
    connect(field, &QLineEdit::editingFinished, this, &StreamDialog::store);
  connect(m_address, &QComboBox::activated, this, &StreamDialog::store);
  connect(m_dates, &QComboBox::activated, this, &StreamDialog::store);
  connect(m_password, &QLineEdit::editingFinished, this, [this] {
    if (!m_showing && !m_chosen.empty()) m_streams.setPassword(m_chosen, m_password->text());
  });
  connect(m_listens, &QCheckBox::clicked, this, [this](bool on) {
    m_streams.setListening(m_chosen, on);
    showHeard();
  });
  m_every->onTyped = [this](const QString&) { store(); };
  m_every->onMessage = [this](const QString& said) { m_state->setText(said); };
}

QWidget* StreamDialog::makeForm() {
  m_form = new QWidget;
  auto* column = new QVBoxLayout(m_form);
  column->setContentsMargins(0, 0, 0, 0);
  column->addLayout(makeHead());
  connectHead();
  m_state->setObjectName("streamState");
  column->addWidget(m_state);
  column->addWidget(scrolling(m_rows), 1);
  m_ofModbus = new QWidget;
  auto* modbus = new QHBoxLayout(m_ofModbus);
  modbus->setContentsMargins(0, 0, 0, 0);
  m_register->setPlaceholderText(tr("holding 100 f32, input 4 s16, holding 10 u32 swapped"));
  m_addRegister = button(tr("Ask for this register"), "addRegister", [this] { addRegister(); });
  connect(m_register, &QLineEdit::returnPressed, this, &StreamDialog::addRegister);
  modbus->addWidget(m_register, 1);
  modbus->addWidget(m_addRegister);
  column->addWidget(m_ofModbus);
  m_day->setObjectName("streamDay");
  m_strikeDay = button(tr("This day's readings into the bin"), "strikeStreamDay", [this] { strikeDay(); });
  auto* foot = new QHBoxLayout;
  foot->addWidget(m_day, 1);
  foot->addWidget(m_strikeDay);
  column->addLayout(foot);
  m_rows->onChanged = [this](const std::vector<book::StreamChannel>& channels) {
    if (const auto* one = inHand()) {
      auto next = one->second;
      next.channels = channels;
      heard(m_edits.set(one->first, next));
    }
  };
  connect(m_rows, &StreamRows::message, m_state, &QLabel::setText);
  return m_form;
}

const std::pair<book::Ref, Stream>* StreamDialog::inHand() const {
  const auto found =
      std::find_if(m_all.begin(), m_all.end(), [&](const auto& one) { return one.first.uid == m_chosen; });
  return found == m_all.end() ? nullptr : &*found;
}

bool StreamDialog::isModbus() const {
  const auto* one = inHand();
  const auto address = StreamAddress::parse(one ? one->second.address : std::string());
  return address && address->kind == StreamAddress::Kind::Modbus;
}

bool StreamDialog::heard(const book::Trouble& trouble) {
  if (trouble) m_state->setText("▲ " + problemWords(*trouble));
  return !trouble;
}

void StreamDialog::add(const std::string& name, const std::string& address, bool listens) {
  Stream fresh;
  fresh.name = name;
  fresh.address = address;
  const auto made = m_edits.make(fresh);
  if (!made) return void(heard(made.problem()));
  m_chosen = made->uid;
  if (listens) m_streams.setListening(m_chosen, true);
  showList();
}

void StreamDialog::takeAway() {
  const auto* one = inHand();
  if (!one) return;
  m_streams.keepNow();
  const auto [ref, stream] = *one;
  m_streams.setListening(ref.uid, false);
  m_chosen.clear();
  heard(m_edits.strike(ref, stream.name));
  showList();
}

void StreamDialog::choose(int row) {
  if (m_showing) return;
  m_chosen = row >= 0 && row < static_cast<int>(m_all.size()) ? m_all[static_cast<std::size_t>(row)].first.uid
                                                              : std::string();
  showForm();
}

void StreamDialog::showList() {
  m_all = m_edits.all();
  if (!inHand()) m_chosen = m_all.empty() ? std::string() : m_all.front().first.uid;
  m_showing = true;
  m_list->clear();
  for (const auto& [ref, stream] : m_all) {
    m_list->addItem(qtext(stream.name));
    if (ref.uid == m_chosen) m_list->setCurrentRow(m_list->count() - 1);
  }
  m_showing = false;
  showForm();
}

void StreamDialog::showForm() {
  const auto* one = inHand();
  m_form->setVisible(one != nullptr);
  if (!one) return;
  m_showing = true;
  const auto& stream = one->second;
  const auto put = [](QLineEdit* field, const QString& text) {
    if (!field->hasFocus() || !field->isModified()) field->setText(text);
  };
  put(m_name, qtext(stream.name));
  put(m_address->lineEdit(), qtext(stream.address));
  put(m_password, m_streams.password(one->first.uid));
  m_every->show(QString::number(stream.everyMinutes));
  m_dates->setCurrentIndex(stream.monthFirst ? 1 : 0);
  m_listens->setChecked(m_streams.isListening(one->first.uid));
  const auto address = StreamAddress::parse(stream.address);
  const bool ofBroker = address && !address->user.empty();
  m_password->setVisible(ofBroker);
  m_passwordName->setVisible(ofBroker);
  m_dates->setVisible(address && address->kind == StreamAddress::Kind::File);
  m_ofModbus->setVisible(isModbus());
  m_showing = false;
  showDay();
  showHeard();
}

void StreamDialog::showHeard() {
  const auto* one = inHand();
  if (!one) return;
  const auto* live = m_streams.live(one->first.uid);
  m_rows->show(one->second, live ? live->heard() : std::vector<HeardFigure>(), m_tanks.vessels());
  m_state->setText(stateWords());
}

QString StreamDialog::stateWords() const {
  const auto* live = m_streams.live(m_chosen);
  if (!live) return tr("It is not listened to. What it says appears here once it is.");
  const auto silent = live->silentSeconds(QDateTime::currentSecsSinceEpoch());
  switch (live->state()) {
  case State::Closed:
    return "▲ " + live->trouble();
  case State::Trying:
    return live->trouble().isEmpty()
               ? tr("It is tried…")
               : tr("▲ Not there: %1. It is tried again and again.").arg(live->trouble());
  case State::Open:
    break;
  }
  if (!silent)
    return isModbus() && inHand()->second.channels.empty()
               ? tr("It is there. Which registers hold what its papers say; ask for them below.")
               : tr("It is there; nothing has come yet.");
  if (const auto& trouble = live->channelTrouble()) return "▲ " + problemWords(*trouble);
  if (const auto stuck = live->stuckKey(); !stuck.empty())
    return tr("▲ %1 has said the same figure for a day: does it hang?").arg(qtext(stuck));
  constexpr std::int64_t longSilenceSeconds = 120;
  if (*silent > longSilenceSeconds) return tr("▲ Nothing has come for %1 min.").arg(*silent / 60);
  return tr("It is heard. Say whose each figure is:");
}

/// The newest day: told anew when the book has more of it, not at each word of a logger.
void StreamDialog::showDay() {
  const auto days = m_edits.days(m_chosen);
  m_strikeDay->setEnabled(!days.empty());
  if (days.empty()) return m_day->setText({});
  const auto& newest = days.front();
  QStringList parts{tr("%1 (UTC): %2 figures heard, %3 readings kept")
                        .arg(qtext(newest.day))
                        .arg(newest.tally.heard)
                        .arg(newest.kept)};
  if (newest.tally.wild > 0) parts << tr("%1 wild").arg(newest.tally.wild);
  if (newest.tally.unread > 0)
    parts << tr("%1 not understood, such as \"%2\"")
                 .arg(newest.tally.unread)
                 .arg(qtext(newest.tally.unreadSample));
  m_day->setText(parts.join(" · "));
}

void StreamDialog::store() {
  const auto* one = inHand();
  if (m_showing || !one) return;
  auto next = one->second;
  next.name = m_name->text().trimmed().toStdString();
  next.address = m_address->currentText().trimmed().toStdString();
  next.monthFirst = m_dates->currentData().toBool();
  next.everyMinutes = static_cast<int>(std::lround(m_every->digits().toDouble()));
  if (next == one->second) return;
  if (heard(m_edits.set(one->first, next)))
    for (auto* field : {m_name, m_address->lineEdit()})
      field->setModified(false);
}

void StreamDialog::addRegister() {
  const auto* one = inHand();
  if (!one) return;
  const auto place = devices::ModbusRegister::parse(m_register->text().trimmed().toStdString());
  if (!place) return void(heard(place.problem()));
  auto next = one->second;
  const auto key = place->text();
  if (std::any_of(next.channels.begin(), next.channels.end(),
                  [&](const book::StreamChannel& channel) { return channel.key == key; }))
    return m_state->setText(tr("%1 is asked for already.").arg(qtext(key)));
  book::StreamChannel fresh;
  fresh.key = key;
  next.channels.push_back(fresh);
  if (heard(m_edits.set(one->first, next))) m_register->clear();
}

void StreamDialog::strikeDay() {
  m_streams.keepNow();
  const auto days = m_edits.days(m_chosen);
  if (!days.empty())
    heard(
        m_edits.strikeDay(days.front(), tr("%1, %2").arg(qtext(days.front().name), qtext(days.front().day))));
}

} // namespace butte::app
