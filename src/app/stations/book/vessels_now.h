#pragma once
#include "book/record.h"

#include <QRectF>
#include <QString>
#include <QWidget>
#include <vector>

class QPainter;

namespace butte::app {

class BookDesk;

/// What every vessel read last, in large figures, each on the stretch that it moved over in the week before.
class VesselsNow : public QWidget {
  Q_OBJECT

public:
  explicit VesselsNow(BookDesk& desk, QWidget* parent = nullptr);
  /// Fetches what is shown now.
  void reload();

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  struct Line {
    QString quantity, value, least, most; ///< as shown
    book::Moment at;
    double share = -1; ///< where the last one stands between least and most; below 0: they are alike
  };
  struct Vessel {
    QString name;
    std::vector<Line> lines;
  };
  std::vector<Line> linesOf(const std::string& vesselUid) const;
  void describe();
  void paintLineOf(QPainter& painter, const QRectF& row, const Line& line) const;

  BookDesk& m_desk;
  std::vector<Vessel> m_vessels; ///< those that have readings
};

} // namespace butte::app
