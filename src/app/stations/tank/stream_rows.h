#pragma once
#include "book/record.h"
#include "book/stream.h"
#include "streams/live_stream.h"

#include <QWidget>
#include <functional>
#include <vector>

class QComboBox;
class QGridLayout;
class QLabel;

namespace butte::app {

class NumberField;

/// What a logger says, a row for each name: the newest figure, and whose it is.
class StreamRows : public QWidget {
  Q_OBJECT

public:
  explicit StreamRows(QWidget* parent = nullptr);

  void show(const book::Stream& stream, const std::vector<HeardFigure>& heard,
            const std::vector<book::RecordHead>& vessels);
  /// Called with all channels once one of them is another.
  std::function<void(const std::vector<book::StreamChannel>& channels)> onChanged;

signals:
  void message(const QString& words);

private:
  struct Row {
    book::StreamChannel channel;
    QLabel *key = nullptr, *says = nullptr;
    QComboBox *vessel = nullptr, *quantity = nullptr, *unit = nullptr;
    NumberField* factor = nullptr;
  };
  void build(const std::vector<book::StreamChannel>& channels, const std::vector<book::RecordHead>& vessels);
  Row makeRow(const book::StreamChannel& channel, const std::vector<book::RecordHead>& vessels, int row);
  void fillUnits(Row& row);
  void chosen(std::size_t row, bool anotherQuantity);
  void tell();

  QGridLayout* m_grid;
  QWidget* m_inside = nullptr;
  std::vector<Row> m_rows;
  std::vector<book::StreamChannel> m_shown; ///< as they were last shown; a hand may be past them
  std::vector<HeardFigure> m_heard;
  std::vector<book::RecordHead> m_vessels;
};

} // namespace butte::app
