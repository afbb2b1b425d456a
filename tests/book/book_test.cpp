#include "book_fixture.h"
#include "deed_words.h"
#include "support/told.h"

#include "edit.h"

#include <QProcess>
#include <QSignalSpy>
#include <QTest>

namespace butte::book {

using ::testing::HasSubstr;

namespace {
Step setName(const Ref& ref, const std::string& before, const std::string& after,
             const std::string& key = {}) {
  return {0, {}, {}, told("renamed to " + after), key, {{ref, "/body/name", before, after}}};
}
} // namespace

TEST_F(BookTest, EveryEditCanBeTakenBackAlsoAfterReopening) {
  auto book = make();
  const auto ref = book->create(Kind::Water, smallWater("One"), told("new water"));
  ASSERT_TRUE(static_cast<bool>(ref)) << words::problemLine(ref.problem());
  ASSERT_FALSE(book->apply(setName(*ref, "One", "Two")));
  ASSERT_FALSE(book->apply(setName(*ref, "Two", "Three")));
  book.reset();
  book = reopen();
  EXPECT_EQ(words::deedText(*book->undoable()), "renamed to Three");
  ASSERT_TRUE(static_cast<bool>(book->undo()));
  EXPECT_EQ(bodyOf(*book, *ref)["name"], "Two");
  book.reset();
  book = reopen();
  EXPECT_EQ(words::deedText(*book->redoable()), "renamed to Three")
      << "what was taken back can be done again, also then";
  ASSERT_TRUE(static_cast<bool>(book->redo()));
  EXPECT_EQ(bodyOf(*book, *ref)["name"], "Three");
  ASSERT_TRUE(static_cast<bool>(book->undo()));
  ASSERT_TRUE(static_cast<bool>(book->undo()));
  EXPECT_EQ(bodyOf(*book, *ref)["name"], "One");
}

TEST_F(BookTest, ANewEditEndsRedo) {
  auto book = make();
  const auto ref = *book->create(Kind::Water, smallWater("One"), told("new water"));
  ASSERT_FALSE(book->apply(setName(ref, "One", "Two")));
  ASSERT_TRUE(static_cast<bool>(book->undo()));
  ASSERT_FALSE(book->apply(setName(ref, "One", "Other")));
  EXPECT_FALSE(book->redoable());
}

TEST_F(BookTest, UndoCanKeepToOneThingWhateverWasDoneElsewhereSince) {
  auto book = make();
  const auto one = *book->create(Kind::Water, smallWater("One"), told("new water"));
  const auto other = *book->create(Kind::Water, smallWater("Other"), told("new water"));
  ASSERT_FALSE(book->apply(setName(one, "One", "Two")));
  ASSERT_FALSE(book->apply(setName(other, "Other", "Another " + one.uid))); // its uid in another's body
  ASSERT_FALSE(book->apply(setName(one, "Two", "Three")));
  ASSERT_FALSE(book->apply(setName(other, "Another " + one.uid, "Last")));
  EXPECT_EQ(words::deedText(*book->undoable(one)), "renamed to Three");
  ASSERT_TRUE(static_cast<bool>(book->undo(one)));
  ASSERT_TRUE(static_cast<bool>(book->undo(one)));
  EXPECT_EQ(bodyOf(*book, one)["name"], "One");
  EXPECT_EQ(bodyOf(*book, other)["name"], "Last") << "what was done elsewhere stays";
  EXPECT_EQ(words::deedText(*book->redoable(one)), "renamed to Two") << "in the order in which it was done";
  ASSERT_TRUE(static_cast<bool>(book->redo(one)));
  EXPECT_EQ(bodyOf(*book, one)["name"], "Two");
  EXPECT_FALSE(book->redoable(other));
  // The book's own undo still goes by time alone.
  EXPECT_EQ(words::deedText(*book->undoable()), "renamed to Last");
  ASSERT_TRUE(static_cast<bool>(book->undo()));
  EXPECT_EQ(bodyOf(*book, one)["name"], "Two");
}

TEST_F(BookTest, WhatStillGathersCountsForTheThingItTouches) {
  auto book = make();
  const auto one = *book->create(Kind::Water, smallWater("One"), told("new water"));
  const auto other = *book->create(Kind::Water, smallWater("Other"), told("new water"));
  ASSERT_FALSE(book->applyGathering(setName(one, "One", "Typed", "name")));
  EXPECT_EQ(words::deedText(*book->undoable(one)), "renamed to Typed");
  EXPECT_EQ(words::deedText(*book->undoable(other)), "new water");
  ASSERT_TRUE(static_cast<bool>(book->undo(one)));
  EXPECT_EQ(bodyOf(*book, one)["name"], "One");
}

TEST_F(BookTest, ACreationTakenBackLiesInTheBinAndComesBack) {
  auto book = make();
  const auto ref = *book->create(Kind::Water, smallWater("One"), told("new water"));
  ASSERT_TRUE(static_cast<bool>(book->undo()));
  EXPECT_TRUE(book->store().list(Kind::Water, false)->empty());
  EXPECT_EQ(book->store().bin()->size(), 1u) << "nothing that was entered is wiped out";
  ASSERT_TRUE(static_cast<bool>(book->redo()));
  EXPECT_EQ(book->store().list(Kind::Water, false)->size(), 1u);
  EXPECT_EQ(bodyOf(*book, ref)["name"], "One");
}

TEST_F(BookTest, ADeletionGoesToTheBinAndBackAndCanBeUndone) {
  auto book = make();
  const auto ref = *book->create(Kind::Water, smallWater("One"), told("new water"));
  ASSERT_FALSE(book->moveToBin(ref, "One"));
  EXPECT_TRUE(book->store().list(Kind::Water, false)->empty());
  book.reset();
  book = reopen();
  ASSERT_TRUE(static_cast<bool>(book->undo()));
  EXPECT_EQ(book->store().list(Kind::Water, false)->size(), 1u);
  ASSERT_FALSE(book->moveToBin(ref, "One"));
  ASSERT_FALSE(book->takeFromBin(ref, "One"));
  EXPECT_EQ(book->store().list(Kind::Water, false)->size(), 1u);
  EXPECT_FALSE(book->takeFromBin(ref, "One")) << "already out: nothing to do";
}

TEST_F(BookTest, TypingGathersIntoOneStep) {
  auto book = make();
  const auto ref = *book->create(Kind::Water, smallWater("One"), told("new water"));
  QSignalSpy kept(book.get(), &Book::kept);
  ASSERT_FALSE(book->applyGathering(setName(ref, "One", "T", "name")));
  ASSERT_FALSE(book->applyGathering(setName(ref, "T", "Tw", "name")));
  EXPECT_TRUE(book->isWaiting());
  ASSERT_TRUE(kept.wait(2000)) << "kept by itself a moment later";
  ASSERT_FALSE(book->applyGathering(setName(ref, "Tw", "Two", "name"))); // the hand goes on after a pause
  EXPECT_EQ(bodyOf(*book, ref)["name"], "Two");
  ASSERT_TRUE(static_cast<bool>(book->undo()));
  EXPECT_EQ(bodyOf(*book, ref)["name"], "One") << "one step of undo";
  ASSERT_TRUE(static_cast<bool>(book->redo()));
  EXPECT_EQ(bodyOf(*book, ref)["name"], "Two");
}

TEST_F(BookTest, AfterTheFieldIsLeftAnotherStepBegins) {
  auto book = make();
  const auto ref = *book->create(Kind::Water, smallWater("One"), told("new water"));
  ASSERT_FALSE(book->applyGathering(setName(ref, "One", "Two", "name")));
  book->endGathering();
  ASSERT_FALSE(book->applyGathering(setName(ref, "Two", "Three", "name")));
  ASSERT_TRUE(static_cast<bool>(book->undo()));
  EXPECT_EQ(bodyOf(*book, ref)["name"], "Two");
}

TEST_F(BookTest, AChangeThatDoesNotBeginFromWhatStandsThereIsAnAnswerNotAnOverwrite) {
  auto book = make();
  const auto ref = *book->create(Kind::Water, smallWater("One"), told("new water"));
  ASSERT_FALSE(book->apply(setName(ref, "One", "Two", "")));
  const auto trouble = book->apply(setName(ref, "One", "Three", ""));
  ASSERT_TRUE(trouble);
  EXPECT_EQ(trouble->code, core::ProblemCode::BookConflict);
  EXPECT_EQ(bodyOf(*book, ref)["name"], "Two") << "what the other hand wrote stays";
  // Keys of one burst are parts of one step: what was kept between them is no conflict.
  ASSERT_FALSE(book->applyGathering(setName(ref, "Two", "Tw", "name")));
  ASSERT_FALSE(book->flush());
  ASSERT_FALSE(book->applyGathering(setName(ref, "Tw", "T", "name")));
  ASSERT_FALSE(book->flush());
  EXPECT_EQ(bodyOf(*book, ref)["name"], "T");
  ASSERT_TRUE(static_cast<bool>(book->undo()));
  EXPECT_EQ(bodyOf(*book, ref)["name"], "Two") << "and they are taken back as one";
}

TEST_F(BookTest, AStepThatBreaksARecordIsRefusedWhole) {
  auto book = make();
  const auto ref = *book->create(Kind::Formula, demoFormula(), told("new formula"));
  const Step bad{
      0,  {},
      {}, told("two things at once"),
      {}, {{ref, "/body/name", demoFormula()["name"], "Other"}, {ref, "/body/batch/amount", "1000", "-5"}}};
  const auto trouble = book->apply(bad);
  ASSERT_TRUE(trouble);
  EXPECT_EQ(trouble->where, "batch.amount");
  EXPECT_EQ(bodyOf(*book, ref), demoFormula());
  EXPECT_EQ(words::deedText(*book->undoable()), "new formula");
}

TEST_F(BookTest, AVersionNeverChanges) {
  auto book = make();
  const auto ref = *book->create(Kind::Formula, demoFormula(), told("new formula"));
  ASSERT_EQ(*book->makeVersion(ref, "used"), 1);
  EXPECT_EQ(*book->makeVersion(ref, "printed"), 1) << "nothing changed since";
  ASSERT_FALSE(
      book->apply({0, {}, {}, told("K to 225"), {}, {{ref, "/body/target/rows/3/mg_per_l", "205", "225"}}}));
  ASSERT_EQ(*book->makeVersion(ref, "named", "summer"), 2);
  const auto versions = book->store().versions(ref.uid);
  ASSERT_EQ(versions->size(), 2u);
  EXPECT_EQ((*versions)[1].body, demoFormula());
  EXPECT_EQ((*versions)[0].who, "oa");
  EXPECT_EQ((*versions)[1].changes, (std::vector<core::Change>{{core::ChangeCode::FirstVersion, {}}}));
  EXPECT_EQ((*versions)[0].changes.front(),
            (core::Change{core::ChangeCode::RowChanged, {"target", "", "K", "205", "mg/L", "225", "mg/L"}}));
  ASSERT_FALSE(book->replaceBody(ref, (*versions)[1].body, told("back to version 1")));
  EXPECT_EQ(bodyOf(*book, ref), demoFormula());
  ASSERT_TRUE(static_cast<bool>(book->undo()));
  EXPECT_EQ(bodyOf(*book, ref)["target"]["rows"][3]["mg_per_l"], "225");
}

TEST_F(BookTest, APersonTakesBackTheirOwnSteps) {
  auto book = make(); // as "oa"
  const auto ref = *book->create(Kind::Water, smallWater("One"), told("new water"));
  ASSERT_FALSE(book->apply({0, {}, {}, told("note"), {}, {{ref, "/body/note", Json(), "by oa"}}}));
  book->setWho("mb");
  ASSERT_FALSE(book->apply({0, {}, {}, told("rename"), {}, {{ref, "/body/name", "One", "Two"}}}));
  book->setWho("oa");
  EXPECT_EQ(words::deedText(*book->undoable()), "note") << "the newer step is somebody else's";
  ASSERT_TRUE(static_cast<bool>(book->undo()));
  EXPECT_EQ(bodyOf(*book, ref)["name"], "Two") << "which stays";
  EXPECT_FALSE(bodyOf(*book, ref).contains("note"));
  book->setWho("mb");
  EXPECT_FALSE(book->redoable()) << "nor does one do again what another took back";
  ASSERT_FALSE(book->apply({0, {}, {}, told("ph"), {}, {{ref, "/body/reports/0/water/ph", "7.4", "7.5"}}}));
  book->setWho("oa");
  EXPECT_TRUE(book->redoable()) << "another's going on does not cut off my own steps";
  ASSERT_TRUE(static_cast<bool>(book->redo()));
  EXPECT_EQ(bodyOf(*book, ref)["note"], "by oa");
  book->setWho("");
  EXPECT_EQ(words::deedText(*book->undoable()), "ph") << "who has no name may take back all";
}

TEST_F(BookTest, AStepThatAnotherBuiltOnIsAConflictAndStays) {
  auto book = make();
  const auto ref = *book->create(Kind::Water, smallWater("One"), told("new water"));
  ASSERT_FALSE(book->apply({0, {}, {}, told("rename"), {}, {{ref, "/body/name", "One", "Two"}}}));
  book->setWho("mb");
  ASSERT_FALSE(book->apply({0, {}, {}, told("rename"), {}, {{ref, "/body/name", "Two", "Three"}}}));
  book->setWho("oa");
  const auto undone = book->undo();
  ASSERT_FALSE(static_cast<bool>(undone));
  EXPECT_EQ(undone.problem().code, core::ProblemCode::BookConflict);
  EXPECT_EQ(bodyOf(*book, ref)["name"], "Three");
  EXPECT_TRUE(book->undoable()) << "the step is still there to be taken back later";
}

TEST_F(BookTest, ASecondOpeningOnlyLooksAndSaysWhoHoldsIt) {
  auto book = make();
  ASSERT_TRUE(static_cast<bool>(book->create(Kind::Water, smallWater("One"), told("new water"))));
  auto second = reopen();
  ASSERT_NE(second, nullptr);
  EXPECT_TRUE(second->isReadOnly());
  EXPECT_THAT(second->readOnlyWords(), HasSubstr("has it open since"));
  EXPECT_EQ(second->store().list(Kind::Water, false)->size(), 1u);
  const auto refused = second->create(Kind::Water, smallWater("Two"), told("new water"));
  ASSERT_FALSE(static_cast<bool>(refused));
  EXPECT_EQ(refused.problem().code, core::ProblemCode::BookReadOnly);
  ASSERT_TRUE(static_cast<bool>(book->create(Kind::Water, smallWater("Two"), told("new water"))))
      << "the first goes on writing";
  EXPECT_EQ(second->store().list(Kind::Water, false)->size(), 1u) << "a snapshot stands still";
  second.reset();
  book.reset();
  EXPECT_FALSE(reopen()->isReadOnly()) << "the mark went with its holder";
}

TEST_F(BookTest, AMarkLeftByAKilledProgramIsNoOwner) {
  make().reset();
  QFile mark(QString::fromStdString(pathOf("farm.butte.owner")));
  ASSERT_TRUE(mark.open(QIODevice::WriteOnly));
  mark.write(QByteArray::fromStdString(Json{
      {"host", QSysInfo::machineHostName().toStdString()},
      {"user", "x"},
      {"since", "2026-01-01T00:00:00Z"},
      {"heard", "2026-01-01T00:00:00Z"}}.dump()));
  mark.close();
  EXPECT_FALSE(reopen()->isReadOnly());
}

TEST_F(BookTest, AnotherComputersMarkCountsUntilItIsSilentAndSomebodyDecides) {
  make().reset();
  const auto markBy = [&](const std::string& heard) {
    QFile mark(QString::fromStdString(pathOf("farm.butte.owner")));
    ASSERT_TRUE(mark.open(QIODevice::WriteOnly));
    mark.write(QByteArray::fromStdString(
        Json{{"host", "packhouse"}, {"user", "mb"}, {"since", "2026-01-01T00:00:00Z"}, {"heard", heard}}
            .dump()));
  };
  markBy(Moment::now().iso());
  auto looked = reopen();
  EXPECT_TRUE(looked->isReadOnly());
  EXPECT_THAT(looked->readOnlyWords(), HasSubstr("mb on packhouse"));
  EXPECT_TRUE((*openBook(pathOf("farm.butte"), pathOf("s"), true))->isReadOnly())
      << "it was heard a moment ago: no taking over";
  markBy("2026-01-01T00:00:00Z");
  EXPECT_TRUE(reopen()->isReadOnly()) << "silent, but nobody decided";
  EXPECT_FALSE((*openBook(pathOf("farm.butte"), pathOf("s"), true))->isReadOnly());
}

TEST_F(BookTest, OnANetworkFolderThereIsNoWriteAheadLog) {
  auto book = make(); // local: with a log
  ASSERT_TRUE(static_cast<bool>(book->create(Kind::Water, smallWater("One"), told("new water"))));
  EXPECT_TRUE(QFile::exists(QString::fromStdString(pathOf("farm.butte-wal"))));
  book.reset();
  qputenv("BUTTE_TREAT_AS_NETWORK", "1");
  book = reopen();
  ASSERT_TRUE(static_cast<bool>(book->create(Kind::Water, smallWater("Two"), told("new water"))));
  EXPECT_FALSE(QFile::exists(QString::fromStdString(pathOf("farm.butte-wal"))));
  EXPECT_TRUE(QFile::exists(QString::fromStdString(pathOf("farm.butte.owner"))));
  auto second = reopen();
  EXPECT_TRUE(second->isReadOnly());
  EXPECT_EQ(second->store().list(Kind::Water, false)->size(), 2u);
  qunsetenv("BUTTE_TREAT_AS_NETWORK");
}

TEST_F(BookTest, TheSnapshotOfALoggedBookOnANetworkIsWholeToo) {
  auto book = make();
  for (int i = 0; i < 20; ++i)
    ASSERT_TRUE(
        static_cast<bool>(book->create(Kind::Water, smallWater("W" + std::to_string(i)), told("new water"))));
  qputenv("BUTTE_TREAT_AS_NETWORK", "1"); // the second computer sees the same files through a network
  auto second = reopen();
  qunsetenv("BUTTE_TREAT_AS_NETWORK");
  ASSERT_NE(second, nullptr);
  EXPECT_TRUE(second->isReadOnly());
  EXPECT_EQ(second->store().list(Kind::Water, false)->size(), 20u);
}

} // namespace butte::book
