#pragma once
#include <QString>
#include <vector>

namespace butte::app {

struct HelpTopic {
  QString title, text;
};

/// The help that ships with the program.
const std::vector<HelpTopic>& helpTopics();

} // namespace butte::app
