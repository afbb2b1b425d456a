#pragma once
#include <QObject>

class QComboBox;

namespace butte::app {

/// Makes the list of a combo box as wide as its widest entry, however narrow the box itself is.
class WholePopup : public QObject {
public:
  explicit WholePopup(QComboBox* box);
  bool eventFilter(QObject* watched, QEvent* event) override;

private:
  QComboBox* m_box;
};

} // namespace butte::app
