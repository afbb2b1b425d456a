// Between the formula in hand and the book. A formula carries its own copy of everything it uses, so that
// nothing in the book changes it behind the grower's back; these two ways are the only traffic.
#include "edits/keep_and_use.h"

#include "base/decimal.h"
#include "document/book_desk.h"
#include "document/formula_editor.h"
#include "edit.h"
#include "edits/water_sources.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "words.h"

#include <QDate>

namespace butte::app {

using book::Kind;
using book::Ref;
using core::DeedCode;
using exchange::Json;

namespace {

/// The thing of this kind and name that is not in the bin.
std::optional<book::Record> named(BookDesk& desk, Kind kind, const std::string& name) {
  const auto heads = desk.book().store().list(kind, false);
  if (!heads) return std::nullopt;
  for (const auto& head : *heads) {
    if (head.name != name) continue;
    const auto record = desk.book().record(head.ref);
    return record ? *record : std::nullopt;
  }
  return std::nullopt;
}

/// What the book knows beside (bag, stage, note ...) stays as it is.
QString put(BookDesk& desk, Kind kind, const Json& known) {
  const auto name = known.value("name", std::string());
  const auto old = named(desk, kind, name);
  Json body = old ? old->body : Json::object();
  body.update(known);
  if (old && old->body == body) return tr("“%1” is in the book already, unchanged.").arg(qtext(name));
  book::Trouble trouble;
  if (old) {
    // The state before stays readable in the trail.
    if (const auto kept = desk.book().makeVersion(old->ref, "used"); !kept)
      return qtext(words::problemText(kept.problem()));
    trouble = desk.book().replaceBody(old->ref, body, {DeedCode::ThingKeptAnew, {name}});
  } else if (const auto made = desk.book().create(kind, body, {DeedCode::ThingKept, {name}}); !made) {
    trouble = made.problem();
  }
  return trouble ? qtext(words::problemText(*trouble)) : tr("“%1” is in the book.").arg(qtext(name));
}

QString keepWater(BookDesk& desk, const Json& formula, const core::Water& made) {
  Json water = formula["water"];
  const auto name = water.value("name", std::string("water"));
  // What was blended or treated is kept as the water that came of it: a water like any other.
  const bool changed = water.contains("parts") || water.contains("treatment") || water.contains("acid_first");
  if (changed) {
    water = reportOf(made);
    water["name"] = name;
  }
  for (const auto* key : {"source", "report", "system"})
    water.erase(key);
  const auto old = named(desk, Kind::Water, name);
  Json body = old ? old->body : Json{{"name", name}, {"reports", Json::array()}};
  for (const auto& report : body["reports"]) {
    if (report["water"] == water) return tr("This report of “%1” is in the book already.").arg(qtext(name));
  }
  const auto today = QDate::currentDate().toString(Qt::ISODate).toStdString();
  Json fresh{{"date", today}, {"laboratory", ""}, {"water", water}};
  if (!body["reports"].empty() && body["reports"].back().value("date", "") == today)
    body["reports"].back() = fresh;
  else
    body["reports"].push_back(fresh);
  return put(desk, Kind::Water, body);
}

/// A shelf's own product as the book keeps it.
Json bodyOf(const Json& product) {
  Json entry = product;
  for (const auto* key : {"on", "held", "colour", "hatch", "hazards"})
    entry.erase(key);
  Json body{{"name", product.value("name", product.value("id", ""))}, {"entry", entry}};
  for (const auto* key : {"colour", "hatch", "hazards"}) {
    if (product.contains(key)) body[key] = product[key];
  }
  return body;
}

QString keepProducts(BookDesk& desk, const Json& formula) {
  int kept = 0;
  for (const auto& product : formula["shelf"]) {
    if (product.contains("catalogue")) continue;
    put(desk, Kind::Product, bodyOf(product));
    ++kept;
  }
  return kept == 0 ? tr("This formula's shelf has no product of your own; shipped ones need no keeping.")
                   : tr("%1 own product(s) of this shelf are in the book.").arg(kept);
}

QString useProduct(FormulaEditor& editor, const Json& body) {
  Json entry = body["entry"];
  const auto name = body.value("name", std::string());
  int number = 1;
  while (editor.indexOf("own_" + std::to_string(number)) >= 0)
    ++number;
  entry["id"] = "own_" + std::to_string(number);
  entry["name"] = name;
  entry["on"] = true;
  for (const auto* key : {"colour", "hatch", "hazards"}) {
    if (body.contains(key)) entry[key] = body[key];
  }
  Json shelf = editor.json()["shelf"];
  for (auto& product : shelf) {
    if (product.value("name", "") != name || product.contains("catalogue")) continue;
    entry["id"] = product["id"];
    product = entry;
    return editor.set({DeedCode::ProductAsInBook, {name}}, "/shelf", shelf)
               ? QString()
               : tr("%1 on the shelf is now as in the book.").arg(qtext(name));
  }
  shelf.push_back(entry);
  return editor.set({DeedCode::ProductAdded, {name}}, "/shelf", shelf)
             ? QString()
             : tr("%1 is on the shelf.").arg(qtext(name));
}

} // namespace

QString keepWords(Kind kind) {
  switch (kind) {
  case Kind::Water:
    return tr("Keep the formula's water");
  case Kind::Target:
    return tr("Keep the formula's target");
  case Kind::Product:
    return tr("Keep the shelf's own products");
  case Kind::StockPlan:
    return tr("Keep the formula's stock plan");
  default:
    return {};
  }
}

QString keepFromFormula(BookDesk& desk, FormulaEditor& editor, Kind kind) {
  const auto& formula = editor.json();
  switch (kind) {
  case Kind::Water:
    return keepWater(desk, formula, editor.answer().waters.water);
  case Kind::Product:
    return keepProducts(desk, formula);
  case Kind::Target: {
    Json body{{"name", formula["target"].value("name", std::string("target"))}};
    if (!editor.document().crop.empty()) body["crop"] = editor.document().crop;
    body["target"] = formula["target"];
    return put(desk, Kind::Target, body);
  }
  case Kind::StockPlan:
    return put(desk, Kind::StockPlan,
               Json{{"name", tr("Stocks of %1").arg(qtext(editor.document().name)).toStdString()},
                    {"formula", desk.inHand().uid},
                    {"stock", formula["stock"]}});
  default:
    return {};
  }
}

QString keepOwnProduct(BookDesk& desk, const FormulaEditor& editor, const std::string& id) {
  if (!desk.isOpen() || desk.isReadOnly()) return {};
  for (const auto& product : editor.json()["shelf"]) {
    if (product.value("id", "") == id && !product.contains("catalogue"))
      return put(desk, Kind::Product, bodyOf(product));
  }
  return {};
}

QString keepStage(BookDesk& desk, FormulaEditor& editor, const QString& stage, const QString& fromWeek) {
  Json body{{"name", editor.json()["target"].value("name", std::string("target"))}};
  if (!editor.document().crop.empty()) body["crop"] = editor.document().crop;
  if (!stage.isEmpty()) body["stage"] = stage.toStdString();
  if (!fromWeek.isEmpty()) body["from_week"] = core::normalisedDecimal(fromWeek.toStdString());
  body["target"] = editor.json()["target"];
  return put(desk, Kind::Target, body);
}

QString useInFormula(BookDesk& desk, FormulaEditor& editor, const Ref& ref) {
  const auto record = desk.book().record(ref);
  if (!record || !*record) return tr("It is no longer in the book.");
  const auto& body = (*record)->body;
  const auto name = qtext(body.value("name", std::string()));
  if (const auto kept = desk.book().makeVersion(ref, "used"); !kept)
    return qtext(words::problemText(kept.problem()));
  switch (ref.kind) {
  case Kind::Water: {
    if (!body.contains("reports") || body["reports"].empty()) return tr("%1 has no report yet.").arg(name);
    const auto source = waterInBook(desk, ref.uid);
    if (!source) return tr("%1 lies in the bin.").arg(name);
    const auto& newest = source->reports.back().date;
    const auto date = qtext(newest);
    return editor.set({DeedCode::WaterReportTaken, {name.toStdString(), newest}}, "/water",
                      sourceFrom(*source, newest))
               ? QString()
               : tr("%1, report of %2, is this formula's water now.").arg(name, date);
  }
  case Kind::Target: {
    exchange::Edit edit{{DeedCode::TargetTaken, {name.toStdString()}},
                        {{"/target", editor.json()["target"], body["target"]}},
                        {}};
    if (body.contains("crop"))
      edit.changes.push_back({"/crop", editor.json().value("crop", Json()), body["crop"]});
    return editor.apply(edit) ? QString() : tr("%1 is this formula's target now.").arg(name);
  }
  case Kind::StockPlan:
    return editor.set({DeedCode::StocksAs, {name.toStdString()}}, "/stock", body["stock"])
               ? QString()
               : tr("%1 is this formula's stock plan now.").arg(name);
  case Kind::Product:
    return useProduct(editor, body);
  default:
    return {};
  }
}

} // namespace butte::app
