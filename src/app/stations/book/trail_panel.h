#pragma once
#include "book/record.h"

#include <QWidget>

class QLabel;
class QListWidget;
class QPushButton;

namespace butte::app {

class BookDesk;
class ThingFacts;
struct Prompts;
struct SideBySide;

/// The history of one thing, as a trail to read: every version, by whom, why, and what had changed. Any two
/// can be compared, and one gone back to.
class TrailPanel : public QWidget {
  Q_OBJECT

public:
  TrailPanel(BookDesk& desk, Prompts& prompts, QWidget* parent = nullptr);
  void show(const book::Ref& ref);
  void refresh() { show(m_ref); }
  const book::Ref& ref() const { return m_ref; }
  /// Marks a version in the trail.
  void choose(int version);

signals:
  void message(const QString& words);
  void useAsked(const book::Ref& ref);
  void compareAsked(const butte::app::SideBySide& sides);

private:
  void fillVersions();
  void compare();
  void goBack();
  void nameVersion();
  void moveBin();
  void buttons();
  BookDesk& m_desk;
  Prompts& m_prompts;
  book::Ref m_ref;
  book::Record m_record;
  std::vector<book::Version> m_versions;
  QLabel *m_title, *m_facts, *m_heading;
  ThingFacts* m_known;
  QListWidget* m_trail;
  QPushButton *m_use, *m_name, *m_bin, *m_compare, *m_back;
};

} // namespace butte::app
