// `butte-cli shelf` and `cost` over a book's file, read only.
#include "book_fixture.h"

#include "base/decimal.h"
#include "support/run_cli.h"

#include <QDir>
#include <random>

namespace butte::book {
namespace {

using butte::test::cli;
using ::testing::HasSubstr;

constexpr core::Deed told{core::DeedCode::Told, {}};

Json amount(double value, const char* unit) {
  return Json{{"amount", core::decimalText(value)}, {"unit", unit}};
}

class ShelfCliTest : public BookTest {
protected:
  void SetUp() override { m_book = make(); }
  void add(Kind kind, const Json& body) { ASSERT_TRUE(m_book->create(kind, body, told)); }
  void bought(const char* product, const char* at, int bags, double kg, double price,
              const char* supplier = "depot", const char* currency = "EUR") {
    add(Kind::Lot, Json{{"product", product},
                        {"name", product},
                        {"bought", at},
                        {"bags", bags},
                        {"bag", amount(kg, "kg")},
                        {"bag_price", core::decimalText(price)},
                        {"currency", currency},
                        {"supplier", supplier}});
  }
  void mixed(const std::string& at, double grams) {
    auto batch = smallBatch("f1", at);
    batch["weights"][0]["actual"] = amount(grams, "g");
    batch["weights"].erase(1);
    add(Kind::Batch, batch);
  }
  Json answered(const std::string& words) {
    const auto run = cli(words);
    EXPECT_EQ(run.code, 0) << run.err;
    return run.code == 0 ? Json::parse(run.out) : Json();
  }
  std::string file() const { return pathOf("farm.butte"); }
  std::unique_ptr<Book> m_book;
};

TEST_F(ShelfCliTest, TellsWhatIsLeftHowLongItDoesAndWhatToBuy) {
  bought("kno3", "2026-01-01", 1, 25, 60);
  bought("kno3", "2026-01-02", 0, 5, 14); // an offer
  for (int week = 0; week < 8; ++week)
    mixed(Moment{1'767'225'600 + week * 604800}.iso(), 2000);
  const auto at = Moment{1'767'225'600 + 8 * 604800 - 3600}.iso();
  const auto answer = answered("shelf " + file() + " --weeks 6 --at " + at);
  const auto& kno3 = answer["products"][0];
  EXPECT_NEAR(kno3["left_kg"].get<double>(), 9, 1e-9);
  EXPECT_NEAR(kno3["weeks_left"].get<double>(), 4.5, 1e-9);
  EXPECT_NEAR(kno3["missing_kg"].get<double>(), 3, 1e-9);
  EXPECT_NEAR(kno3["order"]["cost"].get<double>(), 14, 1e-9) << "one small bag";
  EXPECT_EQ(kno3["lots"].size(), 1u) << "an offer is no lot";
  EXPECT_EQ(answer["currency"], "EUR");
}

TEST_F(ShelfCliTest, CostsByLotByCropAndByMonth) {
  bought("kno3", "2026-01-01", 1, 2, 4);
  bought("kno3", "2026-01-02", 1, 25, 75);
  mixed("2026-02-01", 1500);
  mixed("2026-03-01", 1500);
  const auto answer = answered("cost " + file() + " --at 2026-04-01");
  EXPECT_NEAR(answer["batches"][0]["paid"][0]["amount"].get<double>(), 3, 1e-9);
  EXPECT_NEAR(answer["batches"][1]["paid"][0]["amount"].get<double>(), 1 + 3, 1e-9) << "first in, first out";
  EXPECT_NEAR(answer["total"]["today"][0]["amount"].get<double>(), 9, 1e-9);
  EXPECT_NEAR(answer["total"]["paid_per_m3"][0]["amount"].get<double>(), 3.5, 1e-9)
      << "7 for two batches of 1000 L";
  EXPECT_NEAR(answer["total"]["paid_per_gal_us"][0]["amount"].get<double>(), 0.0035 * 3.785411784, 1e-12);
  ASSERT_EQ(answer["months"].size(), 2u);
  EXPECT_EQ(answer["months"][1]["month"], "2026-03");
  EXPECT_EQ(answer["prices"][0]["history"].size(), 2u);
  EXPECT_EQ(answered("cost " + file() + " --from 2026-02-15 --crop lettuce")["batches"].size(), 1u);
  EXPECT_EQ(answered("cost " + file() + " --crop basil")["batches"].size(), 0u);
}

TEST_F(ShelfCliTest, TheBookIsNeverWritten) {
  bought("kno3", "2026-01-01", 1, 25, 60);
  m_book.reset();
  QFile book(QString::fromStdString(file()));
  ASSERT_TRUE(book.open(QIODevice::ReadOnly));
  const auto before = book.readAll();
  answered("shelf " + file());
  answered("cost " + file());
  book.seek(0);
  EXPECT_EQ(book.readAll(), before);
  EXPECT_EQ(folder.isValid() ? QDir(folder.path()).entryList(QDir::Files).filter("-wal").size() : 1, 0);
}

TEST_F(ShelfCliTest, BadInputIsRefusedInALine) {
  const auto refused = [](const std::string& words, const char* named) {
    const auto run = cli(words);
    EXPECT_EQ(run.code, 2) << words;
    EXPECT_EQ(run.out, "") << words;
    EXPECT_THAT(run.err, HasSubstr(named)) << words;
  };
  refused("shelf " + pathOf("nothing.butte"), "nothing.butte");
  refused("shelf " + folder.path().toStdString(), "");
  refused("cost /dev/zero", "/dev/zero");
  refused("shelf " + file() + " --weeks 0", "--weeks");
  refused("shelf " + file() + " --weeks 900", "--weeks");
  refused("shelf " + file() + " --at yesterday", "--at");
  refused("cost " + file() + " --from 2026-13-01", "--from");
  QFile text(folder.filePath("letter.butte"));
  ASSERT_TRUE(text.open(QIODevice::WriteOnly) && text.write("Dear grower") > 0 && text.flush());
  refused("cost " + pathOf("letter.butte"), "letter.butte");
}

// scipy.optimize.milp on the orders of random farms (tests/oracle/orders.py).
TEST_F(ShelfCliTest, OrdersAreTheCheapestBagsByScipyToo) {
  std::mt19937 random(11);
  const auto below = [&](int most) { return 1 + static_cast<int>(random() % static_cast<unsigned>(most)); };
  for (const auto* product : {"kno3", "mkp", "epsom", "cano3"}) {
    bought(product, "2026-01-01", 1, 5, 9);
    for (int offer = 0; offer < 4; ++offer)
      bought(product, "2026-01-02", 0, 0.5 * below(60), 1 + 0.25 * below(400),
             ("supplier " + std::to_string(offer)).c_str(), offer == 3 ? "USD" : "EUR");
    for (int week = 0; week < 8; ++week) {
      auto batch = smallBatch("f1", Moment{1'767'225'600 + week * 604800}.iso());
      batch["weights"].erase(1);
      batch["weights"][0]["product"] = batch["weights"][0]["name"] = product;
      batch["weights"][0]["actual"] = amount(below(9000), "g");
      add(Kind::Batch, batch);
    }
  }
  const auto at = Moment{1'767'225'600 + 8 * 604800}.iso();
  const auto run = cli("shelf " + file() + " --weeks 20 --at " + at);
  ASSERT_EQ(run.code, 0) << run.err;
  const auto kept = pathOf("answer.json");
  {
    QFile out(QString::fromStdString(kept));
    ASSERT_TRUE(out.open(QIODevice::WriteOnly));
    out.write(run.out.data(), static_cast<qint64>(run.out.size()));
  }
  const auto words = "/usr/bin/python3 " + std::string(BUTTE_TEST_DATA) + "/oracle/orders.py < " + kept +
                     " > " + kept + ".out 2>&1";
  EXPECT_EQ(std::system(words.c_str()), 0) << butte::test::slurp(kept + ".out");
  EXPECT_EQ(butte::test::slurp(kept + ".out"), "4\n");
}

} // namespace
} // namespace butte::book
