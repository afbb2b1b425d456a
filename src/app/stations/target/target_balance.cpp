#include "stations/target/target_balance.h"

#include "base/decimal.h"
#include "document/formula_editor.h"
#include "edits/target_edits.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "refresh/while_seen.h"
#include "services/units_shown.h"
#include "wording/tr.h"
#include "words.h"

#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QVBoxLayout>
#include <cmath>

namespace butte::app {

namespace {

constexpr int pictureHeight = 46;

QString shiftText(const core::IonShift& shift) {
  return QString("%1 %2 → %3")
      .arg(QString::fromStdString(words::nutrientSymbol(shift.nutrient)), localFigure(shift.from),
           localFigure(shift.to));
}

} // namespace

TargetBalancePanel::TargetBalancePanel(FormulaEditor& editor, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_words(new WrappedLabel),
      m_take(new QPushButton(tr("Take the nearest that balances"))) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, pictureHeight, 0, 0);
  column->setSpacing(3);
  m_words->setObjectName("targetBalance");
  m_take->setObjectName("takeNearest");
  connect(m_take, &QPushButton::clicked, this, &TargetBalancePanel::takeNearest);
  column->addWidget(m_words);
  column->addWidget(m_take, 0, Qt::AlignLeft);
  m_take->hide();
  auto* fresh = new WhileSeen(this, [this] { refresh(); });
  connect(&editor, &FormulaEditor::changed, fresh, &WhileSeen::outdate);
  refresh();
}

void TargetBalancePanel::refresh() {
  const auto& request = m_editor.document().given.request;
  m_balance = core::balanceOf(request.rows, request.alkalinityLeftMeqPerL.value_or(0));
  const double gap = m_balance.cationsMeqPerL - m_balance.anionsMeqPerL;
  QString words;
  if (m_balance.cationsMeqPerL + m_balance.anionsMeqPerL <= 0) {
    words = tr("No ions are asked for yet.");
  } else if (m_balance.closes) {
    words = tr("%1 has no target and closes the ion balance: %2 mg/L of it.")
                .arg(QString::fromStdString(words::nutrientName(m_balance.closes->nutrient)),
                     localFigure(m_balance.closes->to));
    words[0] = words[0].toUpper();
  } else if (m_balance.canBalance) {
    words = tr("The ions balance: this can be dissolved.");
  } else {
    QStringList alone;
    for (std::size_t i = 0; i < m_balance.oneAlone.size() && i < 3; ++i)
      alone << shiftText(m_balance.oneAlone[i]);
    words = tr("▲ No water can hold this: %1 stand over by %2 meq/L.%3")
                .arg(gap > 0 ? tr("cations") : tr("anions"), localFigure(std::abs(gap)),
                     alone.isEmpty() ? QString()
                                     : tr(" One alone would do, mg/L: %1.").arg(alone.join(tr(", or "))));
  }
  m_words->setText(words);
  m_take->setVisible(!m_balance.canBalance && !m_balance.nearest.empty());
  QStringList all;
  for (const auto& shift : m_balance.nearest)
    all << shiftText(shift);
  m_take->setToolTip(tr("Every ion gives a little (mg/L): %1").arg(all.join(", ")));
  update();
}

void TargetBalancePanel::takeNearest() {
  std::vector<std::pair<core::Nutrient, double>> nearest;
  for (const auto& shift : m_balance.nearest)
    nearest.emplace_back(shift.nutrient, shift.to);
  TargetEdits(m_editor).balance(nearest);
}

void TargetBalancePanel::paintEvent(QPaintEvent*) {
  const auto& t = theme();
  QPainter painter(this);
  const double most = std::max({m_balance.cationsMeqPerL, m_balance.anionsMeqPerL, 1.0});
  painter.setFont(faceOf(12));
  int line = 0;
  for (const auto& [name, value] :
       {std::pair{tr("cations"), m_balance.cationsMeqPerL}, {tr("anions"), m_balance.anionsMeqPerL}}) {
    const double y = 2 + 21 * line++;
    painter.setPen(t.inkSoft);
    painter.drawText(QRectF(0, y, 56, 18), Qt::AlignVCenter, name);
    const double room = width() - 56 - 92;
    painter.fillRect(QRectF(56, y + 2, std::max(1.0, room * value / most), 14),
                     line == 1 ? t.accent : t.inkSoft);
    painter.setPen(t.ink);
    painter.drawText(QRectF(width() - 88, y, 88, 18), Qt::AlignVCenter | Qt::AlignRight,
                     localNumber(value, 2) + " meq/L");
  }
}

} // namespace butte::app
