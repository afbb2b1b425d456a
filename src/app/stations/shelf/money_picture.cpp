#include "stations/shelf/money_picture.h"

#include "paint/line_of_text.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "wording/record_words.h"
#include "wording/shelf_words.h"
#include "wording/tr.h"

#include <QHelpEvent>
#include <QPainter>
#include <QToolTip>
#include <algorithm>
#include <cmath>

namespace butte::app {

namespace {
constexpr double head = 22, foot = 20;
constexpr std::size_t mostMonths = 24;
} // namespace

MoneyPicture::MoneyPicture(QWidget* parent) : QWidget(parent) {
  setObjectName("moneyPicture");
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

void MoneyPicture::show(const std::vector<book::CostLine>& months, const std::string& currency) {
  m_months.clear();
  m_currency = qtext(currency);
  const auto first = months.size() > mostMonths ? months.size() - mostMonths : 0;
  QStringList said;
  for (auto i = first; i < months.size(); ++i) {
    const auto& line = months[i];
    const auto day = QDate::fromString(qtext(line.key) + "-01", Qt::ISODate);
    Month month;
    const bool namesYear = i == first || day.month() == 1;
    month.name = QLocale().toString(day, namesYear ? "MMM yy" : "MMM");
    for (const auto& money : line.cost.paid.money)
      if (money.currency == currency) month.amount = money.amount;
    month.said = tr("%1: %2, %3")
                     .arg(QLocale().toString(day, "MMMM yyyy"), moneyText(line.cost.paid.money),
                          counted(line.batches, tr("%1 batch"), tr("%1 batches")));
    said << month.said;
    m_months.push_back(std::move(month));
  }
  setAccessibleName(tr("what each month's batches cost: %1").arg(said.join("; ")));
  update();
}

double MoneyPicture::most() const {
  double out = 0;
  for (const auto& month : m_months)
    out = std::max(out, month.amount);
  return out;
}

QRectF MoneyPicture::barOf(std::size_t month) const {
  const double wide = width() / static_cast<double>(std::max<std::size_t>(m_months.size(), 1));
  const double tall = (height() - head - foot) * (most() > 0 ? m_months[month].amount / most() : 0);
  return {wide * static_cast<double>(month) + wide * 0.12, height() - foot - tall, wide * 0.76, tall};
}

void MoneyPicture::paintEvent(QPaintEvent*) {
  const auto& t = theme();
  QPainter p(this);
  p.setFont(faceOf(12));
  if (m_months.empty() || most() == 0) {
    p.setPen(t.inkSoft);
    return paintLine(p, rect(), Qt::AlignCenter, tr("No batch was made from a bag with a price yet."));
  }
  const double labelWidth = 48;
  const auto every = static_cast<std::size_t>(
      std::ceil(labelWidth * static_cast<double>(m_months.size()) / std::max(width(), 1)));
  for (std::size_t i = 0; i < m_months.size(); ++i) {
    const auto bar = barOf(i);
    p.fillRect(bar, t.accent);
    const QRectF column(bar.left() - 20, 0, bar.width() + 40, height());
    if (i % every != 0) continue;
    p.setPen(t.inkSoft);
    paintLine(p, QRectF(column.left(), height() - foot, column.width(), foot), Qt::AlignCenter,
              m_months[i].name);
    p.setPen(t.ink);
    paintLine(p, QRectF(column.left(), bar.top() - 18, column.width(), 16), Qt::AlignCenter,
              localNumber(m_months[i].amount, m_months[i].amount < 10 ? 2 : 0));
  }
  p.setPen(QPen(t.line, 1));
  p.drawLine(QPointF(0, height() - foot), QPointF(width(), height() - foot));
}

bool MoneyPicture::event(QEvent* event) {
  if (event->type() != QEvent::ToolTip) return QWidget::event(event);
  const auto* help = static_cast<QHelpEvent*>(event);
  for (std::size_t i = 0; i < m_months.size(); ++i) {
    const auto bar = barOf(i);
    if (help->pos().x() < bar.left() || help->pos().x() > bar.right()) continue;
    QToolTip::showText(help->globalPos(), m_months[i].said.toHtmlEscaped(), this);
    return true;
  }
  QToolTip::hideText();
  return true;
}

} // namespace butte::app
