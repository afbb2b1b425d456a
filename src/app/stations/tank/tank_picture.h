#pragma once
#include "document/tank_story.h"
#include "document/vessel_readings.h"
#include "paint/axes.h"
#include "paint/time_picture.h"

#include <functional>
#include <map>
#include <optional>
#include <vector>

namespace butte::app {

class UnitsShown;

/// A tank over time: EC, pH, level and, where it was read, temperature, each a strip with what was read and
/// the band in which it should be; what was done, as marks below; and, right of now, where it is heading.
class TankPicture : public TimePicture {
  Q_OBJECT

public:
  explicit TankPicture(UnitsShown& units, QWidget* parent = nullptr);
  void show(const TankGiven& given, const TankStory& story);
  void showNothing(const QString& why);
  /// Readings of another vessel, or of another year, laid over; none takes them away. `later`: seconds by
  /// which they are moved.
  void layOver(const QString& name, const std::vector<book::Reading>& readings, std::int64_t later);
  /// The book's own readings of the stretch in view, where it holds more than the story was told from.
  void showCloser(const CloseReadings& close);
  /// What a dot of a stretch in view stands for.
  std::int64_t secondsPerDot() const;
  /// Another stretch came into view.
  std::function<void()> onStretch;
  int markCount() const override { return static_cast<int>(m_marks.size()); }
  QPointF placeOf(int mark) const override;
  QString markText(int mark) const { return m_marks[static_cast<std::size_t>(mark)].text; }

signals:
  void explained(const QString& words);

protected:
  void paintEvent(QPaintEvent* event) override;
  void fetch() override;
  void showAll() override;
  void explain(int mark) override;
  void choose(int mark) override;

private:
  /// A figure's band at a moment.
  struct Point {
    double seconds = 0;
    core::Band band;
  };
  struct Strip {
    QString name;
    std::string quantity;
    std::vector<Point> told, ahead;                       ///< in the person's unit
    std::vector<std::pair<double, double>> read, doubted; ///< seconds, value
    std::vector<Point> closer;                            ///< means of short stretches, with least and most
    std::optional<std::pair<double, double>> wanted;
    double least = 0, most = 1;
  };
  struct Mark {
    double seconds = 0;
    int shape = 0;
    int strip = -1; ///< -1: something that was done
    double value = 0;
    QString text;
  };
  using Figure = std::function<std::optional<core::Band>(const core::TankEstimate&)>;
  void addStrip(const QString& name, const char* quantity, const TankGiven& given, const TankStory& story,
                const Figure& figure, std::optional<std::pair<double, double>> wanted);
  void fitAxes();
  QRectF stripRoom(std::size_t strip) const;
  Axis axisOf(std::size_t strip) const;
  void paintStrip(QPainter& painter, std::size_t strip) const;
  void paintBand(QPainter& painter, const Axis& axis, const std::vector<Point>& points, bool ahead) const;
  void paintOver(QPainter& painter, const Axis& axis, const Strip& strip) const;
  void paintReadings(QPainter& painter, const Axis& axis, const Strip& strip) const;
  void paintMarks(QPainter& painter) const;
  void paintNow(QPainter& painter) const;

  UnitsShown& m_units;
  std::vector<Strip> m_strips;
  std::vector<Mark> m_marks;
  QString m_why, m_overName;
  std::map<std::string, std::vector<std::pair<double, double>>> m_over; ///< by quantity: seconds, value
  double m_start = 0, m_now = 0, m_end = 0;
  std::int64_t m_closeFrom = 0, m_closeTo = 0; ///< the stretch that is shown closer
  bool m_shown = false;
};

} // namespace butte::app
