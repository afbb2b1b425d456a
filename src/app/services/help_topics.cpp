#include "services/help_topics.h"

#include <QFile>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>

namespace butte::app {

const std::vector<HelpTopic>& helpTopics() {
  static const std::vector<HelpTopic> topics = [] {
    std::vector<HelpTopic> out;
    QFile file(":/help/topics.json");
    if (!file.open(QIODevice::ReadOnly)) return out;
    const auto list = QJsonDocument::fromJson(file.readAll()).array();
    for (const auto& topic : list)
      out.push_back({topic.toObject()["title"].toString(), topic.toObject()["text"].toString()});
    return out;
  }();
  return topics;
}

} // namespace butte::app
