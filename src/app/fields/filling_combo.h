#pragma once
#include <QComboBox>
#include <functional>

namespace butte::app {

/// A list that is looked up when it is opened, not at every change of what it lists.
class FillingCombo : public QComboBox {
public:
  std::function<void()> fill;
  void showPopup() override {
    if (fill) fill();
    QComboBox::showPopup();
  }
};

} // namespace butte::app
