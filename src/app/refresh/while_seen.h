#pragma once
#include <QWidget>
#include <functional>

namespace butte::app {

/// Keeps a panel up to date while it is on the screen. A change refreshes it at once where it is seen, else
/// when it next comes there, before it is painted: a key is answered without the work of all other stations.
class WhileSeen : public QObject {
  Q_OBJECT

public:
  /// Lives as long as `panel`.
  WhileSeen(QWidget* panel, std::function<void()> refresh);

  /// What the panel shows has changed.
  void outdate();

protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

private:
  QWidget* m_panel;
  std::function<void()> m_refresh;
  bool m_outdated = false;
};

/// Sets a style sheet unless it is set already: setting one works through all that is inside.
void restyle(QWidget& widget, const QString& sheet);

} // namespace butte::app
