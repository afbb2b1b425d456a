#pragma once
#include "edits/record_edits.h"

#include <QWidget>
#include <functional>
#include <vector>

class QLabel;
class QLineEdit;
class QVBoxLayout;

namespace butte::app {

class BookDesk;
class NumberField;
class UnitsShown;

/// One batch as it was mixed: what the scale showed beside what was planned, lots, readings, note. Kept as
/// one types.
class BatchPanel : public QWidget {
  Q_OBJECT

public:
  BatchPanel(BookDesk& desk, UnitsShown& units, QWidget* parent = nullptr);
  void show(const std::string& uid);
  /// The same batch again, after a change from elsewhere.
  void refresh();
  std::string uid() const { return m_uid; }

signals:
  void message(const QString& words);
  void formulaAsked(const std::string& formulaUid, int version);
  void sheetAsked(const QString& html);
  void binAsked();

private:
  struct Line {
    QLabel* deviation = nullptr;
    NumberField* actual = nullptr;
    QLineEdit* lot = nullptr;
  };
  void build();
  void addLine(QVBoxLayout* column, std::size_t index);
  void addReadings(QVBoxLayout* column);
  void addButtons(QVBoxLayout* column);
  void keep(const std::function<book::Trouble()>& edit);
  void fill();
  bool load();

  BookDesk& m_desk;
  BatchEdits m_edits;
  UnitsShown& m_units;
  std::string m_uid;
  QWidget* m_content = nullptr;
  QVBoxLayout* m_column;
  std::vector<Line> m_lines;
  NumberField *m_ec = nullptr, *m_ph = nullptr;
  QLineEdit *m_who = nullptr, *m_note = nullptr;
  QLabel *m_head = nullptr, *m_ecUnit = nullptr;
  bool m_setting = false;
};

} // namespace butte::app
