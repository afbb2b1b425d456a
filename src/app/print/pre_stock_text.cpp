#include "print/pre_stock_text.h"

#include "document/formula_editor.h"
#include "services/units_shown.h"
#include "stock/pre_stock.h"
#include "wording/tr.h"

#include <QStringList>

namespace butte::app {

QString preStockHtml(const FormulaEditor& editor, const UnitsShown& units, std::size_t t) {
  const auto& document = editor.document();
  const auto& shelf = document.given.request.shelf;
  QString out;
  for (const auto& bottle : core::preStocks(shelf, editor.answer().stock.tanks, document.scales,
                                            document.given.stock.temperature)) {
    if (bottle.tank != t) continue;
    QStringList items;
    for (const auto& item : bottle.items)
      items << QString("%1 %2").arg(units.text(item.toWeigh),
                                    QString::fromStdString(editor.nameOf(shelf[item.product].id)));
    out += tr("<br><b>Pre-stock</b>, since the scale is too coarse: %1 in %2 of water; <b>%3 into each "
              "fill</b>, for %4 fills.%5")
               .arg(items.join(", "), units.stockText(bottle.bottle), units.stockText(bottle.perFill))
               .arg(bottle.fills)
               .arg(bottle.clear ? QString() : tr(" ▲ It does not stay clear: use a finer scale."));
  }
  return out;
}

} // namespace butte::app
