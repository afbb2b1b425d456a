// A made-up language: every vowel of a text that passes the translation call turns into another letter. What
// a person reads with a plain vowel in it has not passed, unless it is a name that stands in the data.
#include "support/all_texts.h"
#include "window_fixture.h"

#include "language.h"
#include "product/catalogue.h"
#include "stations/stocks/stocks_page.h"
#include "target/scale_target.h"
#include "target/target.h"
#include "wording/spoken_language.h"

#include <QAbstractButton>
#include <QMenuBar>
#include <QRegularExpression>
#include <QSet>
#include <QTranslator>

namespace butte::app {
namespace {

/// Vowels outside of tags, places and mnemonics' own marks: "weighing" to "wëïghïng".
QString strange(const QString& english) {
  static const QString plain = "aeiou", other = QString::fromUtf8("åëïöü");
  QString out;
  int depth = 0;
  for (int i = 0; i < english.size(); ++i) {
    const auto c = english[i];
    if (c == '<' || c == '{') ++depth;
    if (c == '&' && english.indexOf(';', i) > i && english.indexOf(';', i) < i + 7) {
      out += english.mid(i, english.indexOf(';', i) - i + 1);
      i = static_cast<int>(english.indexOf(';', i));
      continue;
    }
    const auto at = depth == 0 ? plain.indexOf(c) : -1;
    out += at < 0 ? c : other[at];
    if ((c == '>' || c == '}') && depth > 0) --depth;
  }
  return out;
}

class MadeUpLanguage : public QTranslator {
public:
  bool isEmpty() const override { return false; }
  QString translate(const char*, const char* english, const char*, int) const override {
    return strange(QString::fromUtf8(english));
  }
};

QStringList wordsIn(const QString& text) {
  static const QRegularExpression word("[A-Za-z\\x{C0}-\\x{24F}]{3,}");
  QStringList out;
  for (auto it = word.globalMatch(text); it.hasNext();)
    out << it.next().captured();
  return out;
}

class LanguageTest : public WindowTest {
protected:
  void SetUp() override {
    QCoreApplication::installTranslator(&m_language);
    speakTheProgramsLanguage();
    openWindow(true);
  }
  void TearDown() override {
    window.reset();
    QCoreApplication::removeTranslator(&m_language);
    words::speak({});
  }

  void learn(const QString& text) {
    for (const auto& word : wordsIn(text))
      m_names.insert(word.toLower());
  }

  /// Names that a person or the catalogue gave, and what all languages write alike.
  void learnNames() {
    for (const auto& product : core::catalogue()) {
      learn(QString::fromStdString(product.shortName));
      learn(QString::fromStdString(product.name));
      learn(QString::fromStdString(product.formulaText + " " + product.cautions));
    }
    for (const auto& target : core::targetCatalogue())
      learn(QString::fromStdString(target.name + " " + target.crop + " " + target.stage));
    const auto& document = editor().document();
    learn(QString::fromStdString(document.name + " " + document.crop + " " + document.waterName + " " +
                                 document.targetName));
    for (const auto& source : document.water.sources)
      learn(QString::fromStdString(source.name));
    for (const auto& scale : document.scales)
      learn(QString::fromStdString(scale.name));
    for (const auto& product : document.products)
      learn(QString::fromStdString(product.name + " " + product.id));
    for (const auto kind : book::allKinds()) {
      if (const auto heads = book().store().list(kind, false)) {
        for (const auto& head : *heads)
          learn(QString::fromStdString(head.name));
      }
    }
    learn("Glasshouse roof, rain; Ormsey bore, older report"); // waters.json, made up
    for (const auto& rule : core::seasonRules("strawberry"))
      learn(QString::fromStdString(rule.name));
    for (int day = 1; day <= 7; ++day)
      learn(QLocale().dayName(day));
    learn("Strawberry, plant-up, flowering (tabletop); Pak choi (rafts); Gerbera (gutters)"); // the demo's
                                                                                              // targets
    learn("demo abc"); // typed by the tests
    learn("meq mmol mol umol CaO MgO");
    learn("Butte Test farm Ormsey Glass Ctrl Shift Esc EDTA DTPA HEDTA EDDHA oa Greywater");
    learn("January February March April May June July August September October November December");
    for (int month = 1; month <= 12; ++month)
      learn(QLocale().monthName(month, QLocale::ShortFormat));
  }

  QStringList untranslatedIn(const QString& text) const {
    static const QRegularExpression vowel("[aeiou]");
    QString shown = text;
    shown.remove(QRegularExpression("<[^>]*>"));
    shown.remove(QRegularExpression("&\\w+;"));
    QStringList out;
    for (const auto& word : wordsIn(shown)) {
      if (word.contains(vowel) && !m_names.contains(word.toLower())) out << word;
    }
    return out;
  }

  void look(const QString& where, const QString& text) {
    const auto found = untranslatedIn(text);
    EXPECT_TRUE(found.isEmpty()) << where.toStdString() << ": \"" << text.toStdString() << "\" has "
                                 << found.join(", ").toStdString();
  }

  /// All that is painted in the window, and what stands behind: tips, hints, names for screen readers, menus.
  void lookAtAll(const QString& where) {
    learnNames();
    test::forAllTexts(*window, where, [this](const auto& at, const auto& text) { look(at, text); });
  }

  MadeUpLanguage m_language;
  QSet<QString> m_names;
};

TEST_F(LanguageTest, EveryTextOfEveryStationIsTranslated) {
  for (const auto& info : stations) {
    window->showStation(info.station);
    QApplication::processEvents();
    lookAtAll(info.key);
  }
}

TEST_F(LanguageTest, EveryPartOfTheBookAndOfTheStocksIsTranslated) {
  ASSERT_FALSE(window->desk().openSample(true));
  learnNames();
  // What a person of the made-up farm typed, what an earlier version told in words, where the copies lie.
  learn("mistyped copy; kept for the rafts when time is short; county laboratory; after the leaf test");
  learn("calcium side, sulfate and phosphate side"); // as a kept batch names its tanks
  learn("first version; target; and 4 more; " + window->desk().path() + " copies");
  window->showStation(Station::Book);
  for (int section = 0; section <= BookPage::Copies; ++section) {
    window->bookPage().showSection(static_cast<BookPage::Section>(section));
    QApplication::processEvents();
    lookAtAll("book part " + QString::number(section));
  }
  window->showStation(Station::Stocks);
  for (int part = 0; part <= static_cast<int>(StocksPage::Part::Levels); ++part) {
    window->stocksPage().showPart(static_cast<StocksPage::Part>(part));
    QApplication::processEvents();
    lookAtAll("stocks part " + QString::number(part));
  }
}

TEST_F(LanguageTest, TheMenusAreTranslated) {
  learnNames();
  for (const auto* action : window->findChildren<QAction*>()) {
    auto text = action->text();
    look("menu", text.remove('&'));
  }
}

TEST_F(LanguageTest, StepsOfUndoAndMessagesAreTranslated) {
  learnNames();
  type("target_K", "300");
  look("undo", editor().undoWords());
  type("target_K", "abc");
  look("a field that is wrong", find("target_K")->message());
}

} // namespace
} // namespace butte::app
