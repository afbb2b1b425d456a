#pragma once
#include "document/tank_story.h"
#include "edits/tank_edits.h"

#include <QWidget>
#include <optional>
#include <vector>

class QListWidget;
class QPushButton;

namespace butte::app {

/// What was done and read, the newest first; a line that is wrong goes into the bin here, and all of it into
/// a table and back.
class LogList : public QWidget {
  Q_OBJECT

public:
  explicit LogList(QWidget* parent = nullptr);
  void show(const VesselLog& log, const TankGiven& given);
  void clear();

signals:
  void strikeAsked(const butte::book::Ref& line, const QString& what);
  void tableAsked();   ///< the log into a file
  void bringInAsked(); ///< one from a file

private:
  void chosen();
  QListWidget* m_list;
  QPushButton* m_strike;
  std::vector<std::optional<book::Ref>> m_refs; ///< by row: nothing for readings
};

} // namespace butte::app
