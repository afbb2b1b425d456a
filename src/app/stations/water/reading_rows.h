#pragma once
#include "report/report_text.h"

#include <QWidget>
#include <functional>
#include <optional>
#include <vector>

class QPlainTextEdit;

namespace butte::app {

/// What was read of a paper, line by line, each at the height of its source and joined to it: sure figures
/// quietly, doubtful ones with what they could be, answered by one press. Nothing is hidden: what is not
/// needed stands there too.
class ReadingRows : public QWidget {
  Q_OBJECT

public:
  explicit ReadingRows(QPlainTextEdit* source, QWidget* parent = nullptr);
  void show(const reading::ReportText& read);
  /// Parallel to the unplaced rows: what was chosen for each.
  const std::vector<std::optional<core::ReportRow>>& answers() const { return m_answers; }
  /// How many still ask.
  int open() const;

signals:
  void answered();

protected:
  void paintEvent(QPaintEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;

private:
  struct Row {
    int line = 0;
    std::size_t from = 0;
    QString text;
    bool doubtful = false, quiet = false;
    QWidget* asks = nullptr; ///< its buttons
    int top = 0, sourceTop = 0;
  };
  void place();
  QWidget* makeAsking(std::size_t unplaced, const reading::UnplacedRow& row);
  void choose(std::size_t unplaced, std::size_t choice, bool on);
  void answer(std::size_t unplaced, std::optional<core::ReportRow> row);
  int lineHeight() const;

  QPlainTextEdit* m_source;
  reading::ReportText m_read;
  std::vector<Row> m_rows;
  std::vector<std::optional<core::ReportRow>> m_answers;
  std::vector<bool> m_asked; ///< still open
};

/// "Ca 35.2 mg/L", "pH 7.4", as a row of a report is said.
QString rowText(const core::ReportRow& row);

} // namespace butte::app
