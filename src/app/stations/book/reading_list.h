#pragma once
#include "book/store.h"

#include <QAbstractListModel>
#include <QWidget>
#include <optional>
#include <vector>

class QComboBox;
class QLabel;
class QLineEdit;
class QListView;
class QVBoxLayout;
class QStringListModel;

namespace butte::app {

class BookDesk;
class NumberField;
class ReadingPicture;

/// Readings of vessels, newest first, fetched page by page.
class ReadingModel : public QAbstractListModel {
  Q_OBJECT

public:
  explicit ReadingModel(BookDesk& desk, QObject* parent = nullptr)
      : QAbstractListModel(parent), m_desk(desk) {}
  void reload();
  void show(const book::ReadingFilter& filter);
  const book::Reading& at(int row) const { return m_readings[static_cast<std::size_t>(row)]; }
  /// The row of the newest reading of a vessel before a moment; -1 where there is none.
  int rowBefore(const std::string& vesselUid, book::Moment before);
  int rowCount(const QModelIndex& parent = {}) const override;
  QVariant data(const QModelIndex& index, int role) const override;
  bool canFetchMore(const QModelIndex& parent) const override { return !parent.isValid() && !m_all; }
  void fetchMore(const QModelIndex& parent) override;
  void unitsChanged();

private:
  BookDesk& m_desk;
  book::ReadingFilter m_filter;
  std::vector<book::Reading> m_readings;
  bool m_all = true;
};

/// What the meters said of each vessel: as a picture and as a list, for one vessel and quantity or all; typed
/// in and corrected here, brought in as a table elsewhere.
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
  QWidget* makeKeepRow();
  QWidget* makeFilterRow();
  QWidget* makeCorrectRow();
  void keep();
  void quantityChosen();
  void filter();
  void fillVessels();
  void selected();
  void correct();
  void toBin();
  const book::Quantity& chosen() const;
  BookDesk& m_desk;
  ReadingModel* m_model;
  QLineEdit* m_vessel;
  QStringListModel* m_vessels; ///< for completing what is typed
  QComboBox *m_quantity, *m_unit, *m_ofVessel, *m_ofQuantity;
  NumberField *m_value, *m_right;
  ReadingPicture* m_picture;
  QListView* m_list;
  QWidget* m_correctRow = nullptr;
  QLabel *m_which, *m_rightUnit;
  std::optional<book::Reading> m_chosen; ///< in the list
};

} // namespace butte::app
