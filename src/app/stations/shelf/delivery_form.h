#pragma once
#include "edits/lot_edits.h"

#include <QWidget>
#include <functional>
#include <vector>

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;

namespace butte::app {

class NumberField;
class UnitsShown;

/// What came through the door, or what it would cost: typed once, the next time proposed.
class DeliveryForm : public QWidget {
  Q_OBJECT

public:
  DeliveryForm(LotEdits& edits, UnitsShown& units, QWidget* parent = nullptr);
  /// For this product, with what its last delivery was; for any where it is empty.
  void begin(const std::string& product);
  /// The same of a lot that is there, to be corrected.
  void correct(const std::string& uid, const book::Lot& lot);

signals:
  void message(const QString& words);
  /// It is in the book, or the hand went back.
  void done(const QString& product);

private:
  QLineEdit* line(const QString& name, const char* object, const QString& hint = {});
  NumberField* number(const QString& name, const char* object, double least, double most);
  void layOut();
  void productChosen();
  void showUnits();
  void show(const book::Lot& lot);
  QString bagUnit() const;
  std::optional<book::Lot> typedLot(bool isOffer);
  bool readDate(const QLineEdit* field, std::optional<book::Moment>& at);
  void keep(bool isOffer);
  void say(const QString& words) { emit message(words); }

  LotEdits& m_edits;
  UnitsShown& m_units;
  std::vector<Buyable> m_known;
  std::string m_uid;   ///< of the lot that is corrected
  QString m_unitOfBag; ///< of the digits in its field
  book::Moment m_came; ///< when it came, as it is known
  QLabel *m_title, *m_bagUnit, *m_densityName;
  QComboBox* m_product;
  NumberField *m_bags, *m_bag, *m_density, *m_price, *m_lead;
  QLineEdit *m_currency, *m_mark, *m_bought, *m_supplier, *m_place, *m_best, *m_note;
  QPushButton *m_keep, *m_offer, *m_back;
};

} // namespace butte::app
