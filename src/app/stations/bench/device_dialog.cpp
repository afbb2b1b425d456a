#include "stations/bench/device_dialog.h"

#include "attached_devices.h"
#include "document/formula_editor.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "pen/pen_line.h"
#include "services/units_shown.h"
#include "stations/bench/run_words.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QComboBox>
#include <QFormLayout>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QVBoxLayout>

namespace butte::app {

using devices::ScaleStatus;
using ports::DevicePort;

namespace {

constexpr auto usualAddress = "serial:/dev/ttyUSB0";
constexpr int mostLinesShown = 9, linesSize = 14, widthOfLine = 34;

QString madeOf(const devices::ScaleReading& reading) {
  switch (reading.status) {
  case ScaleStatus::Weight: {
    const auto weight = OnDisplay{reading.unit, reading.decimals}.text(*reading.mass);
    if (!reading.stable) return weight;
    return *reading.stable ? tr("%1, still").arg(weight) : tr("%1, moving").arg(weight);
  }
  case ScaleStatus::Overload:
    return tr("overload");
  case ScaleStatus::Underload:
    return tr("underload");
  case ScaleStatus::Busy:
    return tr("busy");
  case ScaleStatus::Fault:
    return tr("an error of the scale's own");
  case ScaleStatus::Nothing:
    break;
  }
  return tr("no weight");
}

QString madeOf(const devices::PenReading& reading) {
  QStringList out;
  if (reading.conductivity) out << localNumber(reading.conductivity->milliSiemensPerCm(), 3) + " mS/cm";
  if (reading.ph) out << "pH " + localNumber(*reading.ph, 2);
  if (reading.temperature) out << localNumber(reading.temperature->celsius(), 1) + " °C";
  return out.isEmpty() ? tr("no reading") : out.join(", ");
}

QLineEdit* textField(const QString& name, const QString& id, const QString& example) {
  auto* field = new QLineEdit;
  field->setObjectName(id);
  field->setAccessibleName(name);
  field->setPlaceholderText(example);
  return field;
}

} // namespace

DeviceDialog::DeviceDialog(DeviceDesk& devices, const FormulaEditor& editor, QWidget* parent)
    : QDialog(parent), m_devices(devices), m_list(new QListWidget), m_name(new QComboBox),
      m_address(new QComboBox), m_pattern(textField(tr("pattern of its lines"), "devicePattern",
                                                    tr("the usual shapes are read by themselves"))),
      m_ask(textField(tr("what asks for a line"), "deviceAsk", tr("it sends by itself"))),
      m_tare(textField(tr("what makes it tare"), "deviceTare", tr("by its own key"))),
      m_state(new WrappedLabel), m_lines(new PlainLabel) {
  setObjectName("deviceDialog");
  setWindowTitle(tr("Scales and pens"));
  m_list->setObjectName("deviceList");
  m_list->setAccessibleName(tr("scales and pens"));
  m_state->setObjectName("deviceState");
  m_lines->setObjectName("deviceLines");
  m_lines->setFont(typewriterFaceOf(linesSize));
  m_lines->setAlignment(Qt::AlignTop);
  const auto button = [this](const QString& words, const char* id, std::function<void()> does) {
    auto* made = new QPushButton(words);
    made->setObjectName(id);
    made->setAutoDefault(false);
    connect(made, &QPushButton::clicked, this, std::move(does));
    return made;
  };
  auto* left = new QVBoxLayout;
  left->addWidget(m_list, 1);
  left->addWidget(button(tr("A scale"), "addScale", [this] { add(DeviceSetting::Kind::Scale); }));
  left->addWidget(button(tr("A pen"), "addPen", [this] { add(DeviceSetting::Kind::Pen); }));
  left->addWidget(button(tr("Take it away"), "removeDevice", [this] { takeAway(); }));
  auto* row = new QHBoxLayout(this);
  row->addLayout(left, 1);
  row->addWidget(makeForm(editor), 3);
  resize(860, 520);
  connect(m_list, &QListWidget::currentRowChanged, this, &DeviceDialog::choose);
  connect(&devices, &DeviceDesk::changed, this, &DeviceDialog::showTester);
  showList();
  m_list->setCurrentRow(0);
  choose(m_list->currentRow());
}

QWidget* DeviceDialog::makeForm(const FormulaEditor& editor) {
  m_form = new QWidget;
  auto* form = new QFormLayout(m_form);
  m_name->setObjectName("deviceName");
  m_address->setObjectName("deviceAddress");
  for (auto* box : {m_name, m_address}) {
    box->setEditable(true);
    box->setMinimumWidth(280);
    connect(box->lineEdit(), &QLineEdit::editingFinished, this, &DeviceDialog::store);
    connect(box, &QComboBox::activated, this, &DeviceDialog::store);
  }
  for (const auto& scale : editor.document().scales)
    if (!scale.spoons && !scale.name.empty()) m_name->addItem(qtext(scale.name));
  for (const auto& device : ports::attachedDevices()) {
    const auto address = "serial:" + device.path;
    m_address->addItem(device.description.isEmpty() ? address : address + " (" + device.description + ")",
                       device.serial);
  }
  m_address->setToolTip(tr("serial:/dev/ttyUSB0,9600,8N1 for a cable (what is left out is 9600,8N1); "
                           "tcp:host:port on the network"));
  form->addRow(tr("Name"), m_name);
  form->addRow(tr("Where it hangs"), m_address);
  m_ofScale = new QWidget;
  auto* ofScale = new QFormLayout(m_ofScale);
  ofScale->setContentsMargins(0, 0, 0, 0);
  m_pattern->setToolTip(tr("Text as it stands, and in braces what differs: {weight}, {weight:kg}, {unit}, "
                           "{stable:ST|US}, {any}"));
  ofScale->addRow(tr("Pattern"), m_pattern);
  ofScale->addRow(tr("Ask with"), m_ask);
  ofScale->addRow(tr("Tare with"), m_tare);
  m_ask->setToolTip(tr("Such as P\\r\\n for a scale that sends only when it is asked"));
  m_tare->setToolTip(tr("Such as T\\r\\n, where it can be tared over its cable"));
  form->addRow(m_ofScale);
  for (auto* field : {m_pattern, m_ask, m_tare})
    connect(field, &QLineEdit::editingFinished, this, &DeviceDialog::store);
  form->addRow(m_state);
  form->addRow(m_lines);
  return m_form;
}

void DeviceDialog::add(DeviceSetting::Kind kind) {
  auto all = m_devices.kept();
  const bool pen = kind == DeviceSetting::Kind::Pen;
  DeviceSetting fresh{kind, pen ? tr("pen") : tr("scale"), usualAddress, {}, {}, {}, {}};
  const auto attached = ports::attachedDevices();
  if (!attached.empty()) {
    fresh.address = "serial:" + attached.front().path;
    fresh.serial = attached.front().serial;
  }
  all.push_back(fresh);
  m_devices.keep(all);
  showList();
  m_list->setCurrentRow(m_list->count() - 1);
}

void DeviceDialog::takeAway() {
  auto all = m_devices.kept();
  if (m_index < 0 || m_index >= static_cast<int>(all.size())) return;
  all.erase(all.begin() + m_index);
  m_devices.keep(all);
  showList();
  m_list->setCurrentRow(m_list->count() - 1);
  choose(m_list->currentRow());
}

void DeviceDialog::showList() {
  m_showing = true;
  const int row = m_list->currentRow();
  m_list->clear();
  for (const auto& device : m_devices.kept())
    m_list->addItem(device.name.isEmpty() ? device.address : device.name);
  m_list->setCurrentRow(std::min(row, m_list->count() - 1));
  m_showing = false;
}

void DeviceDialog::choose(int index) {
  if (m_showing) return;
  m_index = index;
  const bool there = index >= 0 && index < static_cast<int>(m_devices.kept().size());
  m_form->setVisible(there);
  if (!there) return listen();
  const auto& device = m_devices.kept()[index];
  m_showing = true;
  m_name->setCurrentText(device.name);
  m_address->setCurrentText(device.address);
  m_pattern->setText(device.pattern);
  m_ask->setText(device.ask);
  m_tare->setText(device.tare);
  m_ofScale->setVisible(device.kind == DeviceSetting::Kind::Scale);
  m_showing = false;
  listen();
}

void DeviceDialog::store() {
  auto all = m_devices.kept();
  if (m_showing || m_index < 0 || m_index >= static_cast<int>(all.size())) return;
  auto& device = all[m_index];
  // "serial:/dev/ttyUSB0 (its maker's words)" as it was chosen from the list.
  const auto address = m_address->currentText().section(" (", 0, 0).trimmed();
  const int chosen = m_address->findText(m_address->currentText());
  if (chosen >= 0)
    device.serial = m_address->itemData(chosen).toString();
  else if (address != device.address)
    device.serial.clear();
  device.address = address;
  device.name = m_name->currentText().trimmed();
  device.pattern = m_pattern->text().trimmed();
  device.ask = m_ask->text();
  device.tare = m_tare->text();
  if (all == m_devices.kept()) return;
  m_devices.keep(all);
  showList();
  listen();
}

void DeviceDialog::listen() {
  if (m_live) m_live->disconnect(this);
  m_live = m_index >= 0 ? m_devices.live(static_cast<std::size_t>(m_index)) : nullptr;
  m_made.clear();
  if (m_live) connect(m_live, &LiveDevice::lineRead, this, &DeviceDialog::showLine);
  showTester();
}

void DeviceDialog::showLine(const QByteArray& line) {
  const auto text = line.toStdString();
  const auto& setting = m_live->setting();
  const auto pattern = devices::ScalePattern::parse(setting.pattern.toStdString());
  const auto made = setting.kind == DeviceSetting::Kind::Pen ? madeOf(devices::readPenLine(text))
                    : setting.pattern.isEmpty() || !pattern  ? madeOf(devices::readScaleLine(text))
                                                             : madeOf(pattern->read(text));
  QString seen = QString::fromLatin1(line);
  for (auto& letter : seen)
    if (!letter.isPrint()) letter = QChar(0x00B7);
  m_made.prepend(seen.left(widthOfLine).leftJustified(widthOfLine) + "  →  " + made);
  while (m_made.size() > mostLinesShown)
    m_made.removeLast();
}

void DeviceDialog::showTester() {
  m_lines->setText(m_made.join("\n"));
  if (!m_live) return m_state->setText({});
  const auto trouble = m_live->trouble();
  switch (m_live->state()) {
  case DevicePort::State::Open:
    m_state->setText(m_made.isEmpty() ? tr("The cable is there; no line has come yet.") : tr("It is heard:"));
    return;
  case DevicePort::State::Trying:
    m_state->setText(trouble.isEmpty() ? tr("It is tried…")
                                       : tr("▲ Not there: %1. It is tried every second.").arg(trouble));
    return;
  case DevicePort::State::Closed:
    m_state->setText("▲ " + trouble);
  }
}

} // namespace butte::app
