#pragma once
#include "paint/hatch.h"

#include <QString>
#include <QWidget>
#include <vector>

namespace butte::app {

/// A vessel that is filled by hand: at the left how full it stands and when, at the right the salts in order,
/// each a stretch of the meter's way from the water to the finished feed. What should be read after each
/// stands at the stretch's end.
class LadderPicture : public QWidget {
public:
  struct Rung {
    QString amount; ///< "12.4 g", "0.35 mL"
    QString name;
    QString reading;  ///< "EC 0.84 mS/cm", once it is stirred in
    double after = 0; ///< the same, mS/cm
    ProductLook look;
    QString trouble; ///< what is wrong with the amount; empty: nothing
    bool operator==(const Rung&) const = default;
  };
  /// A height of the vessel, 0 to 1, and what is to be done up to there.
  struct Level {
    double share = 0;
    QString words;
    bool operator==(const Level&) const = default;
  };
  struct Shown {
    QString firstName;               ///< what is in it before the salts
    QString first, last;             ///< its reading; the finished feed's
    double before = 0, finished = 0; ///< mS/cm
    double present = 0;              ///< share of the vessel that is feed already
    std::vector<Level> levels;       ///< from below
    std::vector<Rung> rungs;
    bool operator==(const Shown&) const = default;
  };

  explicit LadderPicture(QWidget* parent = nullptr);
  void show(Shown shown);

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  /// What the columns take, by the words that stand in them and by the room there is.
  struct Columns {
    double room = 0;   ///< of the vessel with what is said beside it
    double vessel = 0; ///< of it alone
    double amount = 0, name = 0, reading = 0;
    double meterLeft() const;
  };
  Columns leastColumns() const;
  Columns columns() const;
  double leastRow() const;
  static QString lastName();
  void paintVessel(QPainter& painter, const QRectF& room) const;
  void paintRung(QPainter& painter, const QRectF& row, std::size_t index) const;
  void paintEnd(QPainter& painter, const QRectF& row, const QString& name, const QString& reading,
                double at) const;
  void paintReading(QPainter& painter, const QRectF& row, double from, double x,
                    const QString& reading) const;
  double meterAt(const QRectF& row, double milliSiemens) const;
  QRectF nameRoom(const QRectF& row) const;
  double highest() const;

  Shown m_shown;
  Columns m_columns; ///< as painted now
};

} // namespace butte::app
