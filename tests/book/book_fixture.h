#pragma once
#include "book/kinds/kind_info.h"
#include "book/open_book.h"
#include "book/open_store.h"
#include "formula_json.h"
#include "words.h"

#include <QFile>
#include <QTemporaryDir>
#include <gmock/gmock.h>

namespace butte::book {

/// Says what the trouble was when an EXPECT fails.
inline std::string said(const Trouble& trouble) {
  return trouble ? words::problemLine(*trouble) : std::string("fine");
}

inline Json demoFormula() {
  QFile file(QString(BUTTE_DEMO) + "/ormsey.json");
  EXPECT_TRUE(file.open(QIODevice::ReadOnly));
  auto json = exchange::parseFormulaText(file.readAll().toStdString());
  EXPECT_TRUE(static_cast<bool>(json));
  return *json;
}

inline Json smallWater(const std::string& name = "Bore") {
  auto water = Json::parse(R"({"name": "", "reports": [{"date": "2026-03-02", "laboratory": "", "water":
    {"name": "Bore", "rows": [{"key": "Ca", "mg_per_l": "62"}], "ph": "7.4"}}]})");
  water["name"] = name;
  return water;
}

inline Json smallBatch(const std::string& formula = "f1", const std::string& at = "2026-03-02T07:15:00Z") {
  return Json::parse(R"({"at": ")" + at + R"(", "formula": ")" + formula +
                     R"(", "formula_version": 1, "formula_name": "Lettuce",
    "crop": "lettuce", "water_name": "Bore", "litres": 1000, "ec_planned": 1.6, "ph_planned": 5.8, "who": "oa", "note": "cold morning",
    "weights": [{"product": "kno3", "name": "potassium nitrate", "tank": "B", "planned_g": 400,
                 "actual": {"amount": "0.402", "unit": "kg"}, "lot": "KN-77"},
                {"product": "epsom", "name": "magnesium sulfate", "tank": "B", "planned_g": 250, "actual": null, "lot": ""}]})");
}

/// A vessel of this name, so that readings have something to belong to.
inline Record smallVessel(const std::string& uid, const std::string& name) {
  return {{Kind::Vessel, uid}, Json{{"name", name}}, {}};
}

class BookTest : public ::testing::Test {
protected:
  std::string pathOf(const QString& name) const { return folder.filePath(name).toStdString(); }

  std::unique_ptr<Book> make(const QString& name = "farm.butte") {
    auto made = createBook(pathOf(name), "Test farm");
    EXPECT_TRUE(static_cast<bool>(made)) << (made ? "" : words::problemLine(made.problem()));
    if (!made) return nullptr;
    auto book = std::move(made).value();
    book->setWho("oa");
    return book;
  }

  std::unique_ptr<Book> reopen(const QString& name = "farm.butte") {
    auto opened = openBook(pathOf(name), pathOf("snapshots"));
    EXPECT_TRUE(static_cast<bool>(opened)) << (opened ? "" : words::problemLine(opened.problem()));
    return opened ? std::move(opened).value() : nullptr;
  }

  static Json bodyOf(Book& book, const Ref& ref) {
    const auto record = book.record(ref);
    return record && *record ? (*record)->body : Json();
  }

  QTemporaryDir folder;
};

} // namespace butte::book
