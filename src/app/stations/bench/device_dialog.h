#pragma once
#include "services/device_desk.h"

#include <QDialog>
#include <QPointer>
#include <QStringList>

class QComboBox;
class QLabel;
class QLineEdit;
class QListWidget;

namespace butte::app {

class FormulaEditor;

/// The scales and pens of this bench: where each hangs, how it writes, and, line by line as they come, what
/// is made of them. What is typed counts when its field is left.
class DeviceDialog : public QDialog {
  Q_OBJECT

public:
  DeviceDialog(DeviceDesk& devices, const FormulaEditor& editor, QWidget* parent = nullptr);

private:
  QWidget* makeForm(const FormulaEditor& editor);
  void add(DeviceSetting::Kind kind);
  void takeAway();
  void choose(int index);
  void store();
  void showList();
  void listen();
  void showLine(const QByteArray& line);
  void showTester();

  DeviceDesk& m_devices;
  QListWidget* m_list;
  QComboBox *m_name, *m_address;
  QLineEdit *m_pattern, *m_ask, *m_tare;
  QLabel *m_state, *m_lines;
  QWidget *m_form = nullptr, *m_ofScale = nullptr;
  QPointer<LiveDevice> m_live;
  QStringList m_made; ///< the newest lines and what was made of them
  int m_index = -1;
  bool m_showing = false;
};

} // namespace butte::app
