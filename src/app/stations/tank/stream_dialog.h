#pragma once
#include "edits/stream_edits.h"
#include "edits/tank_edits.h"
#include "streams/stream_desk.h"

#include <QDialog>

class QCheckBox;
class QComboBox;
class QFormLayout;
class QLabel;
class QLineEdit;
class QListWidget;
class QPushButton;

namespace butte::app {

class NumberField;
class StreamRows;

/// The loggers of the farm: where each is, what it says now, and whose each figure is. What is typed counts
/// when its field is left.
class StreamDialog : public QDialog {
  Q_OBJECT

public:
  StreamDialog(BookDesk& desk, StreamDesk& streams, QWidget* parent = nullptr);

private:
  QWidget* makeForm();
  QFormLayout* makeHead();
  void connectHead();
  QPushButton* button(const QString& words, const char* id, std::function<void()> does);
  void add(const std::string& name, const std::string& address, bool listens);
  void takeAway();
  void choose(int row);
  void showList();
  void showForm();
  void showHeard();
  void showDay();
  void store();
  void addRegister();
  void strikeDay();
  bool heard(const book::Trouble& trouble);
  const std::pair<book::Ref, book::Stream>* inHand() const;
  bool isModbus() const;
  QString stateWords() const;

  StreamDesk& m_streams;
  StreamEdits m_edits;
  TankEdits m_tanks;
  std::vector<std::pair<book::Ref, book::Stream>> m_all;
  std::string m_chosen; ///< uid
  QListWidget* m_list;
  QLineEdit *m_name, *m_password, *m_register;
  QComboBox *m_address, *m_dates;
  NumberField* m_every;
  QCheckBox* m_listens;
  StreamRows* m_rows;
  QLabel *m_state, *m_day;
  QPushButton *m_addRegister, *m_strikeDay;
  QWidget *m_form = nullptr, *m_ofModbus = nullptr, *m_passwordName = nullptr;
  bool m_showing = false;
};

} // namespace butte::app
