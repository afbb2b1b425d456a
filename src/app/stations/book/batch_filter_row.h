#pragma once
#include "book/store.h"

#include <QTimer>
#include <QWidget>

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;

namespace butte::app {

class BookDesk;
class NumberField;

/// Which batches to show: by crop, time, product, lot, how far off plan. Answers as one types.
class BatchFilterRow : public QWidget {
  Q_OBJECT

public:
  explicit BatchFilterRow(BookDesk& desk, QWidget* parent = nullptr);
  book::BatchFilter filter() const;
  /// A stretch of time marked in the picture, until it is cleared.
  void setStretch(book::Moment from, book::Moment before);
  void refreshCrops();

signals:
  void changed();
  void message(const QString& words);

private:
  void count();
  void typed();
  BookDesk& m_desk;
  QComboBox *m_crop, *m_since;
  QLineEdit *m_product, *m_lot;
  NumberField* m_off;
  QPushButton* m_clear;
  QLabel* m_count;
  std::optional<std::pair<book::Moment, book::Moment>> m_stretch;
  QTimer m_typing;
};

} // namespace butte::app
