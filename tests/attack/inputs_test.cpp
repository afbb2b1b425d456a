// Broken inputs for every reader: an answer each time, in words that can be shown; no crash, no wait without
// end. The usual run takes a share; BUTTE_INPUTS says how many for each reader, BUTTE_SEED which
// (tools/attack.sh inputs).
#include "broken_inputs.h"
#include "readers.h"

#include <QFile>
#include <QString>
#include <QtGlobal>
#include <gtest/gtest.h>

namespace butte::attack {

std::string seed(const std::string& name) {
  const bool demo = name.starts_with("demo:");
  QFile file(QString::fromStdString(demo ? std::string(BUTTE_DEMO) + "/" + name.substr(5)
                                         : std::string(BUTTE_SEEDS) + "/" + name));
  EXPECT_TRUE(file.open(QIODevice::ReadOnly)) << name;
  return file.readAll().toStdString();
}

class InputsTest : public ::testing::TestWithParam<std::string> {};

TEST_P(InputsTest, WhateverComesInIsAnswered) {
  const auto& reader = readerNamed(GetParam());
  const int asked = qEnvironmentVariableIntValue("BUTTE_INPUTS");
  const int count = asked > 0 ? asked : 25;
  BrokenInputs inputs(static_cast<unsigned>(qEnvironmentVariableIntValue("BUTTE_SEED")) + 1);
  for (const auto& name : reader.seeds) {
    const auto valid = seed(name);
    EXPECT_TRUE(reader.take(valid)) << name << " is a seed: it is right";
    for (int i = 0; i < count; ++i) {
      const auto input = inputs.from(valid);
      QFile last(QString(BUTTE_LAST_INPUT)); // what ended the program, to be looked at
      if (last.open(QIODevice::WriteOnly)) last.write(input.data(), static_cast<qint64>(input.size()));
      last.close();
      reader.take(input);
    }
  }
}

INSTANTIATE_TEST_SUITE_P(Readers, InputsTest,
                         ::testing::Values("formula", "document", "script", "water", "table", "book",
                                           "mark"));

TEST(BrokenInputs, TheSameSeedGivesTheSame) {
  BrokenInputs a(3), b(3), c(4);
  const std::string valid = R"({"a": 1.5, "b": [1, 2, 3], "name": "Bore"})";
  int different = 0;
  for (int i = 0; i < 50; ++i) {
    const auto one = a.from(valid);
    EXPECT_EQ(one, b.from(valid));
    different += one != c.from(valid) ? 1 : 0;
  }
  EXPECT_GT(different, 40);
}

} // namespace butte::attack
