#pragma once
#include "paint/hatch.h"

#include <QString>
#include <QWidget>
#include <string>
#include <vector>

namespace butte::app {

/// The way of the drop: the water in its pipe, each tank giving its share, what the meter would show after
/// each, the tap.
class DilutionPicture : public QWidget {
public:
  struct Inlet {
    QString title;                                        ///< "A · calcium side"
    QStringList rates;                                    ///< "10 mL per L", "16 L per hour" ...
    QString readsBehind;                                  ///< EC in the pipe behind it
    std::vector<std::pair<ProductLook, double>> products; ///< with their share of the salts
    bool operator==(const Inlet&) const;                  ///< looks the same
  };

  explicit DilutionPicture(QWidget* parent = nullptr);
  void show(QStringList water, std::vector<Inlet> inlets, QStringList feed);

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  void paintInlet(QPainter& painter, const Inlet& inlet, double x, double width, double pipe) const;
  QStringList m_water, m_feed;
  std::vector<Inlet> m_inlets;
};

} // namespace butte::app
