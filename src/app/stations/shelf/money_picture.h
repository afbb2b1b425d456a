#pragma once
#include "book/cost_report.h"

#include <QWidget>
#include <vector>

namespace butte::app {

/// What each month's batches cost, a bar each, in one currency.
class MoneyPicture : public QWidget {
  Q_OBJECT

public:
  explicit MoneyPicture(QWidget* parent = nullptr);
  void show(const std::vector<book::CostLine>& months, const std::string& currency);
  QSize sizeHint() const override { return QSize(500, 150); }
  QSize minimumSizeHint() const override { return QSize(300, 110); }

protected:
  void paintEvent(QPaintEvent* event) override;
  bool event(QEvent* event) override;

private:
  struct Month {
    QString name, said;
    double amount = 0;
  };
  QRectF barOf(std::size_t month) const;
  double most() const;
  std::vector<Month> m_months;
  QString m_currency;
};

} // namespace butte::app
