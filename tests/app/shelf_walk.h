#pragma once
// The Shelf station under a hand: deliveries, counts, lists.
#include "book/batch.h"
#include "edits/lot_edits.h"
#include "stations/shelf/product_plank.h"
#include "stations/shelf/shelf_page.h"
#include "stations/stocks/stocks_page.h"
#include "window_fixture.h"

#include <QComboBox>
#include <QListWidget>
#include <QPushButton>
#include <QStatusBar>
#include <QTextBrowser>

namespace butte::app {

class ShelfPageTest : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    // What batches took is all that is known of the use; a test that wants a plan types the feed of a day.
    window->showStation(Station::Stocks);
    window->stocksPage().showPart(StocksPage::Part::Supply);
    type("feedPerDay", "");
    window->showStation(Station::Shelf);
    settle();
  }
  ShelfPage& page() { return window->shelfPage(); }
  void settle() {
    QApplication::processEvents();
    ASSERT_TRUE(QTest::qWaitFor([&] { return page().isSettled(); }, 20000));
    QApplication::processEvents();
  }
  QString status() { return window->statusBar()->currentMessage(); }
  std::string text(const char* name) { return find<QLabel>(name)->text().toStdString(); }
  void choose(const QString& name, const QString& entry) {
    auto* box = find<QComboBox>(name);
    const int index = box->findText(entry, Qt::MatchContains);
    ASSERT_GE(index, 0) << entry.toStdString();
    box->setCurrentIndex(index);
    settle();
  }
  /// The product is typed, as a hand finds it in a long list.
  void delivered(const char* product, const char* bags, const char* bag, const char* price,
                 const char* mark = "") {
    click("newDelivery");
    auto* box = find<QComboBox>("lotProduct");
    box->setCurrentIndex(box->findText(product));
    type("lotBags", bags);
    type("lotBag", bag);
    type("lotPrice", price);
    type("lotCurrency", "EUR");
    type("lotMark", mark);
    click("lotKeep");
    settle();
  }
  ProductPlank* plank(const std::string& product) {
    for (auto* one : window->findChildren<ProductPlank*>())
      if (one->product() == product) return one;
    ADD_FAILURE() << product << " stands on no plank";
    return nullptr;
  }
  std::string said(const std::string& product) {
    auto* one = plank(product);
    return one ? one->said().toStdString() : std::string();
  }
  /// A batch of this product alone, so many days ago.
  void mixed(const std::string& product, const std::string& name, double kg, int daysAgo) {
    book::Batch batch;
    batch.at = {book::Moment::now().seconds - daysAgo * 86400};
    batch.formulaName = "Lettuce";
    batch.crop = "lettuce";
    batch.litres = 1000;
    batch.weights = {{product, name, "B", kg * 1000, exchange::Amount{std::to_string(kg), "kg"}, ""}};
    ASSERT_TRUE(book().create(book::Kind::Batch, toJson(batch), told("batch")));
    settle();
  }
};

} // namespace butte::app
