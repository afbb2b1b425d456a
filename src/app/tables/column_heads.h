#pragma once
#include "table/mapping.h"

#include <QTableWidget>

class QComboBox;

namespace butte::app {

/// A table of another's as it stands, and above each column what it is taken for and in what its figures
/// stand, to be changed there.
class ColumnHeads : public QTableWidget {
  Q_OBJECT

public:
  /// More are passed over; no table of the trade has them.
  static constexpr std::size_t mostColumns = 60;
  explicit ColumnHeads(QWidget* parent = nullptr);
  void show(const reading::ForeignTable& table, const reading::TableMapping& mapping);
  /// Only what stands above the columns.
  void showMapping(const reading::TableMapping& mapping);
  /// One column each: of two that were taken for the same, the one chosen last.
  std::vector<reading::ColumnMeaning> columns() const;

signals:
  void changed();

private:
  void makeHead(int column);
  void fillUnits(int column);
  void mark(int column);
  void chooseField(int column);
  void chooseUnit(int column);
  QComboBox* fieldBox(int column) const;
  QComboBox* unitBox(int column) const;

  reading::TableOf m_table = reading::TableOf::Products;
  bool isFreed(std::size_t column) const;
  void showFreed();

  std::vector<reading::ColumnMeaning> m_columns; ///< as each was chosen
  std::vector<int> m_turns;                      ///< when it was chosen; 0: as proposed
  int m_turn = 0;
};

} // namespace butte::app
