#pragma once
#include "job_walk.h"
#include "stations/stocks/stocks_page.h"

#include <QLabel>

namespace butte::app {

/// What a greenhouse's hand does over and over.
class GreenhouseJobs : public JobWalk {
protected:
  core::Volume tank(std::size_t t) { return editor().answer().stock.tanks.at(t).tank.volume; }
  std::string told(const QString& label) {
    QApplication::processEvents();
    return find<QLabel>(label)->text().toStdString();
  }
  void putSingleSalts() {
    go(Station::Formula);
    for (const auto* salt : {"calcium nitrate 15.5 % N", "potassium nitrate", "monopotassium phosphate",
                             "magnesium sulfate", "potassium sulfate", "iron DTPA 11 %"})
      choose("addProduct", salt);
  }
  void takeTarget(const QString& name) {
    go(Station::Target);
    choose("targetChoice", name);
  }
  void openTanks() {
    go(Station::Stocks);
    if (editor().document().given.direct) hit("wayStocks");
  }
  void openPart(StocksPage::Part part) {
    ++actions;
    window->stocksPage().showPart(part);
    QApplication::processEvents();
  }
  double inTank(std::size_t t, const std::string& product) {
    const auto& shelf = editor().document().given.request.shelf;
    for (const auto& item : editor().answer().stock.tanks.at(t).items)
      if (shelf[item.product].id == product) return item.mass.grams();
    return 0;
  }
};

} // namespace butte::app
