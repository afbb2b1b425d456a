#pragma once
#include <QWidget>

class QLabel;

namespace butte::app {

/// Room for a label whose words change at every key. Qt lays a whole page out anew whenever a label takes
/// other words; here only where they need more room, or another height, than they had. The room does not
/// shrink in width until the page is laid out for another reason.
class SteadyRoom : public QWidget {
public:
  explicit SteadyRoom(QLabel* label, QWidget* parent = nullptr);
  QSize sizeHint() const override;
  QSize minimumSizeHint() const override;
  bool hasHeightForWidth() const override;
  int heightForWidth(int width) const override;

protected:
  bool event(QEvent* event) override;
  void showEvent(QShowEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;

private:
  void askForRoom();

  QLabel* m_label;
};

} // namespace butte::app
