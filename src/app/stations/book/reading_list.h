#pragma once
#include "book/store.h"

#include <QAbstractListModel>
#include <QWidget>
#include <vector>

class QComboBox;
class QLineEdit;
class QStringListModel;

namespace butte::app {

class BookDesk;
class NumberField;

/// Readings of tanks, newest first, fetched page by page.
class ReadingModel : public QAbstractListModel {
  Q_OBJECT

public:
  explicit ReadingModel(BookDesk& desk, QObject* parent = nullptr)
      : QAbstractListModel(parent), m_desk(desk) {}
  void reload();
  int rowCount(const QModelIndex& parent = {}) const override;
  QVariant data(const QModelIndex& index, int role) const override;
  bool canFetchMore(const QModelIndex& parent) const override { return !parent.isValid() && !m_all; }
  void fetchMore(const QModelIndex& parent) override;
  void unitsChanged();

private:
  BookDesk& m_desk;
  std::vector<book::Reading> m_readings;
  bool m_all = true;
};

/// What the meters said of each tank: typed in here, brought in as a table elsewhere.
class ReadingList : public QWidget {
  Q_OBJECT

public:
  explicit ReadingList(BookDesk& desk, QWidget* parent = nullptr);
  void reload();
  /// The person measures in other units from now on.
  void showUnits();

signals:
  void message(const QString& words);

private:
  void keep();
  void quantityChosen();
  const book::Quantity& chosen() const;
  BookDesk& m_desk;
  ReadingModel* m_model;
  QLineEdit* m_vessel;
  QStringListModel* m_vessels; ///< for completing what is typed
  QComboBox *m_quantity, *m_unit;
  NumberField* m_value;
};

} // namespace butte::app
