// A mixing that was done: plan, scale, meters.
#include "batch.h"

#include "base/decimal.h"
#include "kinds/kind_info.h"
#include "tables/table_import.h"
#include "tables/table_writer.h"
#include "typed_numbers.h"

namespace butte::book {
namespace {

Trouble checkBatch(const Json& body) {
  const auto batch = batchFromJson(body);
  return batch ? Trouble() : Trouble(batch.problem());
}

Trouble writeBatches(Store& store, TableWriter& out) {
  const auto& in = out.measures();
  const auto conductivity = " (" + in.conductivityUnit() + ")", mass = " (" + in.massUnit() + ")";
  out.header({"batch", "time", "formula", "crop", "water", "volume (" + in.volumeUnit() + ")",
              "EC planned" + conductivity, "EC read" + conductivity, "pH read", "who", "note", "product",
              "tank", "planned" + mass, "actual" + mass, "lot"},
             {}, "");
  const auto shown = [&](const std::optional<double>& milliSiemens) {
    return milliSiemens ? std::optional(in.in(core::Conductivity::fromMilliSiemensPerCm(*milliSiemens)))
                        : std::nullopt;
  };
  const auto weighed = [&](const std::optional<double>& grams) {
    return grams ? std::optional(in.in(core::Mass::fromGrams(*grams))) : std::nullopt;
  };
  out.end();
  return store.eachRecord(Kind::Batch, [&](const Record& record, Moment) {
    const auto batch = batchFromJson(record.body);
    if (record.binnedAt || !batch) return true;
    const auto head = [&] {
      for (const auto& text :
           {record.ref.uid, batch->at.iso(), batch->formulaName, batch->crop, batch->waterName})
        out.text(text);
      out.number(in.in(core::Volume::fromLitres(batch->litres)));
      out.number(shown(batch->ecPlanned));
      out.number(shown(batch->ecReadMilliSiemens()));
      out.number(batch->phRead.value_or(""));
      out.text(batch->who);
      out.text(batch->note);
    };
    for (const auto& w : batch->weights) {
      head();
      out.text(w.productName);
      out.text(w.tank);
      out.number(weighed(w.plannedGrams));
      out.number(weighed(w.actualGrams()));
      out.text(w.lot);
      if (!out.end()) return false;
    }
    if (!batch->weights.empty()) return true;
    head();
    for (int i = 0; i < 5; ++i)
      out.text("");
    return out.end();
  });
}

/// The batch's own figures, from its first row.
Json bodyOf(const TableImport& import, const core::CsvRow& row, const std::string& litres,
            const std::string& ecPlanned, const std::string& ecRead, const std::string& ph) {
  Json body{{"at", import.cell(row, "time")},
            {"formula", ""},
            {"formula_version", 0},
            {"formula_name", import.cell(row, "formula")},
            {"crop", import.cell(row, "crop")},
            {"water_name", import.cell(row, "water")},
            {"litres", core::parseDecimal(litres).value_or(0)},
            {"who", import.cell(row, "who")},
            {"note", import.cell(row, "note")},
            {"weights", Json::array()}};
  if (!ecPlanned.empty()) body["ec_planned"] = *core::parseDecimal(ecPlanned);
  if (!ecRead.empty()) body["ec_read"] = exchange::amountJson(ecRead, "mS/cm");
  if (!ph.empty()) body["ph_read"] = ph;
  return body;
}

RowSaid takeBatch(TableImport& import, const core::CsvRow& row) {
  using words::RowCode;
  const auto uid = import.cell(row, "batch");
  if (uid.empty()) return no(RowCode::NoBatch);
  RowSaid wrong;
  std::map<std::string, std::string> digits;
  for (const auto* column :
       {"volume (l)", "ec planned (ms/cm)", "ec read (ms/cm)", "ph read", "planned (g)", "actual (g)"}) {
    const auto figure = import.number(row, column, wrong);
    if (!figure) return wrong;
    digits[column] = figure->digits;
  }
  auto& batches = import.records();
  auto it = batches.find(uid);
  if (it == batches.end()) {
    const auto inBook = import.store().read({Kind::Batch, uid});
    if (inBook && *inBook) return no(RowCode::BatchThere, {uid});
    Json body = bodyOf(import, row, digits["volume (l)"], digits["ec planned (ms/cm)"],
                       digits["ec read (ms/cm)"], digits["ph read"]);
    if (const auto trouble = checkBatch(body)) return faulty(*trouble);
    it = batches.emplace(uid, KnownRecord{{Kind::Batch, uid}, std::nullopt, std::move(body)}).first;
  }
  const auto name = import.cell(row, "product");
  if (name.empty()) return yes(RowCode::BatchTaken, {uid});
  Json line{{"product", name},
            {"name", name},
            {"tank", import.cell(row, "tank")},
            {"planned_g", core::parseDecimal(digits["planned (g)"]).value_or(0)},
            {"lot", import.cell(row, "lot")}};
  if (!digits["actual (g)"].empty()) line["actual"] = exchange::amountJson(digits["actual (g)"], "g");
  Json body = it->second.now;
  body["weights"].push_back(line);
  if (const auto trouble = checkBatch(body)) return faulty(*trouble);
  it->second.now = std::move(body);
  return yes(RowCode::BatchLineTaken, {uid, name});
}

const TableKind batchTable{"batch", "batches", writeBatches, takeBatch};

} // namespace

const KindInfo kinds::batch{.kind = Kind::Batch,
                            .code = "batch",
                            .one = "batch",
                            .many = "batches",
                            .check = checkBatch,
                            .home = Home::Batches,
                            .nameKey = "formula_name",
                            .moments = {"at"},
                            .table = &batchTable};

} // namespace butte::book
