#include "document/formula_file.h"

#include "formula_json.h"
#include "wording/tr.h"

#include <QFile>
#include <QFileInfo>
#include <QSaveFile>

namespace butte::app {

using core::problemAt;
using core::ProblemCode;

namespace {
constexpr qint64 largestFile = 16 << 20;

core::Problem fileProblem(const QString& path, const QString& what) {
  return problemAt(ProblemCode::BadFile, path.toStdString(), {what.toStdString()});
}
} // namespace

core::Result<std::string> fileBytes(const QString& path, qint64 mostBytes) {
  if (const QFileInfo info(path); info.exists() && !info.isFile())
    return fileProblem(path, tr("it is no file"));
  QFile file(path);
  if (!file.open(QIODevice::ReadOnly))
    return fileProblem(path, tr("it can't be read: %1").arg(file.errorString()));
  constexpr qint64 inMega = 1 << 20;
  if (file.size() > mostBytes)
    return fileProblem(path, tr("it is larger than %1 MB").arg(mostBytes / inMega));
  auto bytes = file.readAll().toStdString();
  if (file.error() != QFileDevice::NoError)
    return fileProblem(path, tr("reading stopped: %1").arg(file.errorString()));
  return bytes;
}

core::Result<exchange::Json> readFormulaFile(const QString& path) {
  const auto bytes = fileBytes(path, largestFile);
  if (!bytes) return bytes.problem();
  return exchange::parseFormulaText(*bytes);
}

bool writeAll(QFileDevice& file, const std::string& text) {
  const auto size = static_cast<qint64>(text.size());
  return file.write(text.data(), size) == size && file.flush();
}

std::optional<core::Problem> writeFormulaFile(const QString& path, const exchange::Json& json) {
  QSaveFile file(path);
  if (!file.open(QIODevice::WriteOnly))
    return fileProblem(path, tr("it can't be written: %1").arg(file.errorString()));
  const auto text = exchange::formulaText(json);
  if (!writeAll(file, text) || !file.commit())
    return fileProblem(path,
                       tr("it can't be written: %1; the old file is untouched").arg(file.errorString()));
  return std::nullopt;
}

} // namespace butte::app
