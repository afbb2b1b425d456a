// Pictures of papers, rendered from the reports and labels of tests/data/truth and befallen as a scanner or a
// hand's camera would: what is read of the picture is held to what is read of the text itself, which its own
// tests hold to the truth. A figure may be asked for; a wrong one may not be taken.
#include "base/encoding.h"
#include "page/agreed_label.h"
#include "page/agreed_report.h"
#include "reading/papers.h"
#include "rendered_paper.h"
#include "scan/paper_reader.h"
#include "water/report_row.h"

#include <QBuffer>
#include <QDeadlineTimer>
#include <QFontDatabase>
#include <QGuiApplication>
#include <QPainter>
#include <QPdfWriter>
#include <atomic>
#include <cmath>
#include <gmock/gmock.h>
#include <iostream>
#include <thread>

namespace butte::scan {
namespace {

using core::ReportRow;
using test::Befallen;

struct Manner {
  const char* family;
  int dotsPerInch;
  Befallen what;
};
const std::vector<Manner> manners{{"B612", 200, {}},
                                  {"B612", 200, {3, 0, false, 0, 0}},
                                  {"B612 Mono", 180, {-1, 0.5, true, 0, 2}},
                                  {"B612 Mono", 200, {0, 0, false, 35, 0}},
                                  {"B612", 220, {1.5, 0.4, true, 50, 3}},
                                  {"B612", 150, {0, 0.3, false, 0, 4}}};

struct Score {
  /// `named`: listed with its figure's line, and its name is for a hand to say; `missing`: nowhere.
  int all = 0, right = 0, wrong = 0, asked = 0, named = 0, missing = 0;
  std::string faults;
  void add(const Score& other) {
    all += other.all, right += other.right, wrong += other.wrong;
    asked += other.asked, named += other.named, missing += other.missing;
    faults += other.faults;
  }
};
std::ostream& operator<<(std::ostream& out, const Score& s) {
  return out << s.right << " of " << s.all << " right, " << s.asked << " asked, " << s.named
             << " to be named, " << s.missing << " missing, " << s.wrong << " wrong\n"
             << s.faults;
}

double inOne(const ReportRow& row) {
  const auto milligrams = core::milligramsPerLitre(row);
  return milligrams ? *milligrams : row.value;
}
bool isSame(const ReportRow& a, const ReportRow& b) {
  return a.below == b.below && std::abs(inOne(a) - inOne(b)) <= 0.001 * std::max(inOne(a), inOne(b));
}

Paper paperOf(const std::string& text, const Manner& manner) {
  const auto page = test::printed(QString::fromStdString(text), manner.family, manner.dotsPerInch);
  auto paper = readPaper(test::afterAll(page, manner.what));
  if (qEnvironmentVariableIsSet("BUTTE_SCAN_ONLY")) {
    for (const auto& reading : paper.readings)
      std::cout << reading.text << "\n----\n";
  }
  return paper;
}

/// Its figure, or its name without one, stands among what asks.
bool isListed(const reading::ReportText& read, const std::string& text, const reading::ReadRow& wanted) {
  const auto figure = text.substr(wanted.place.from, wanted.place.to - wanted.place.from);
  return std::any_of(read.unplaced.begin(), read.unplaced.end(), [&](const auto& row) {
    if (!row.couldBe.empty()) return false;
    return row.value == figure || (row.why == reading::WhyUnplaced::NoFigure && row.name == wanted.name);
  });
}

Score scoreOfReport(const std::filesystem::path& file, const Manner& manner) {
  const auto text = test::contentsOf(file);
  const auto wanted = reading::readReportText(text);
  const auto read = reading::agreedReport(paperOf(text, manner).readings);
  Score out;
  const auto told = [&](const ReportRow& row, const char* what) {
    out.faults +=
        file.filename().string() + " " + row.key + " " + std::to_string(row.value) + " " + what + "\n";
  };
  for (const auto& one : wanted.read) {
    ++out.all;
    const auto it = std::find_if(read.read.begin(), read.read.end(),
                                 [&](const auto& r) { return r.row.key == one.row.key; });
    const bool asks = std::any_of(read.unplaced.begin(), read.unplaced.end(), [&](const auto& u) {
      return std::any_of(u.couldBe.begin(), u.couldBe.end(),
                         [&](const auto& c) { return c.key == one.row.key; });
    });
    if (it != read.read.end() && isSame(it->row, one.row))
      ++out.right;
    else if (it != read.read.end())
      ++out.wrong, told(it->row, "WRONG");
    else if (asks)
      ++out.asked, told(one.row, "asked");
    else if (isListed(read, core::utf8From(text), one))
      ++out.named, told(one.row, "to be named");
    else
      ++out.missing, told(one.row, "MISSING");
  }
  for (const auto& one : read.read) {
    const bool known = std::any_of(wanted.read.begin(), wanted.read.end(),
                                   [&](const auto& w) { return w.row.key == one.row.key; });
    if (!known) ++out.wrong, told(one.row, "IS NOT THERE");
  }
  return out;
}

Score scoreOfLabel(const std::filesystem::path& file, const Manner& manner) {
  const auto text = test::contentsOf(file);
  const auto wanted = reading::readLabelText(text);
  const auto read = reading::agreedLabel(paperOf(text, manner).readings);
  Score out;
  for (const auto& [key, percent] : wanted.rows) {
    ++out.all;
    const auto it = std::find_if(read.label.rows.begin(), read.label.rows.end(),
                                 [&](const auto& r) { return r.first == key; });
    const bool asks =
        std::any_of(read.blurred.begin(), read.blurred.end(), [&](const auto& b) { return b.key == key; });
    if (it != read.label.rows.end() && std::abs(it->second - percent) < 1e-6)
      ++out.right;
    else if (it != read.label.rows.end())
      ++out.wrong,
          out.faults += file.filename().string() + " " + key + " WRONG " + std::to_string(it->second) + "\n";
    else
      ++(asks ? out.asked : out.missing),
          out.faults += file.filename().string() + " " + key + (asks ? " asked\n" : " missing\n");
  }
  return out;
}

bool isAsked(const std::filesystem::path& file) {
  const auto only = qEnvironmentVariable("BUTTE_SCAN_ONLY").toStdString();
  return file.filename().string().find(only) != std::string::npos;
}

/// All papers in all manners with BUTTE_SCAN_ALL, for hours that nobody waits; else a few of each. With
/// BUTTE_SCAN_ONLY those whose name holds it, and what each reading of their pictures gave.
template <class ScoreOf> Score scoreOf(const char* folder, ScoreOf scoreOne, std::size_t each) {
  if (qEnvironmentVariableIsSet("BUTTE_SCAN_EACH")) each = qEnvironmentVariable("BUTTE_SCAN_EACH").toUInt();
  const bool all = qEnvironmentVariableIsSet("BUTTE_SCAN_ALL");
  Score out;
  const auto files = test::textsIn(std::string("/") + folder);
  for (std::size_t m = 0; m < manners.size(); ++m) {
    Score ofManner;
    for (std::size_t i = 0; i < files.size(); ++i)
      if (all ? isAsked(files[i]) : i % each == m) ofManner.add(scoreOne(files[i], manners[m]));
    if (all || qEnvironmentVariableIsSet("BUTTE_SCAN_TELL"))
      std::cout << manners[m].family << " " << m << ": " << ofManner;
    out.add(ofManner);
  }
  std::cout << folder << ": " << out;
  return out;
}

TEST(Scan, ReportsInPicturesAreReadRightOrAsked) {
  ASSERT_TRUE(canReadPictures());
  const auto score = scoreOf("data/truth/reports", scoreOfReport, 30);
  EXPECT_EQ(score.wrong, 0) << score;
  EXPECT_GE(score.right, 0.97 * score.all) << score;
}

TEST(Scan, LabelsInPicturesAreReadRightOrAsked) {
  const auto score = scoreOf("data/truth/labels", scoreOfLabel, 40);
  EXPECT_EQ(score.wrong, 0) << score;
  EXPECT_GE(score.right, 0.95 * score.all) << score;
}

TEST(Scan, APdfsTextIsReadAsItStands) {
  QByteArray bytes;
  QBuffer buffer(&bytes);
  buffer.open(QIODevice::WriteOnly);
  {
    QPdfWriter writer(&buffer);
    writer.setResolution(100);
    QPainter painter(&writer);
    painter.drawText(60, 60, "Calcium");
    painter.drawText(260, 60, "78.2");
    painter.drawText(400, 60, "mg/l");
    painter.drawText(60, 90, "Nitrate as N");
    painter.drawText(260, 90, "2.7");
    painter.drawText(400, 90, "mg/l");
    writer.newPage();
    painter.drawText(60, 60, "Sodium as it was found");
    painter.drawText(260, 60, "21");
    painter.drawText(400, 60, "mg/l in this sample here");
  }
  const auto paper = readPaper(bytes);
  ASSERT_FALSE(paper.trouble);
  EXPECT_FALSE(paper.isPicture);
  EXPECT_EQ(paper.pages.size(), 2u);
  ASSERT_EQ(paper.readings.size(), 1u);
  const auto read = reading::readReportText(paper.readings.front().text);
  ASSERT_GE(read.read.size(), 2u) << paper.readings.front().text;
  EXPECT_EQ(read.read[1].row, (ReportRow{"N_NO3", 2.7, "mg/L", false}));
}

TEST(Scan, WhatIsNoPaperIsSaid) {
  EXPECT_FALSE(isPaper("Calcium;78;mg/l"));
  EXPECT_TRUE(isPaper("%PDF-1.4 ..."));
  EXPECT_EQ(readPaper(QByteArray("%PDF-1.4 broken")).trouble, PaperTrouble::NoPaper);
  EXPECT_EQ(readPaper(QByteArray("nothing")).trouble, PaperTrouble::NoPaper);
  EXPECT_EQ(readPaper(QImage()).trouble, PaperTrouble::NoPaper);
  QImage white(400, 300, QImage::Format_RGB32);
  white.fill(Qt::white);
  EXPECT_EQ(readPaper(white).trouble, PaperTrouble::NothingToRead);
  QImage dot(1, 1, QImage::Format_RGB32);
  dot.fill(Qt::black);
  EXPECT_EQ(readPaper(dot).trouble, PaperTrouble::NothingToRead);
}

TEST(Scan, IsStoppedSoonAndTellsHowFarItIs) {
  const auto page = test::printed(QString("Calcium\t78\tmg/l\n").repeated(40), "B612", 200);
  std::atomic<bool> stop = false;
  std::atomic<int> farthest = 0;
  Watch watch;
  watch.stop = &stop;
  watch.progress = [&](int percent) {
    farthest = std::max(farthest.load(), percent);
    stop = true;
  };
  EXPECT_EQ(readPaper(page, watch).trouble, PaperTrouble::Stopped);
  EXPECT_LE(farthest, 100);
}

} // namespace
} // namespace butte::scan

int main(int argc, char** argv) {
  qputenv("QT_QPA_PLATFORM", "offscreen");
  QGuiApplication application(argc, argv);
  for (const auto* font : {"B612-Regular.otf", "B612Mono-Regular.otf"})
    QFontDatabase::addApplicationFont(QString(BUTTE_FONTS) + "/" + font);
  ::testing::InitGoogleTest(&argc, argv);
  return RUN_ALL_TESTS();
}
