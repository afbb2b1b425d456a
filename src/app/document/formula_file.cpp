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

core::Result<exchange::Json> readFormulaFile(const QString& path) {
  // A folder, a device, a pipe: some of these never end.
  if (const QFileInfo info(path); info.exists() && !info.isFile())
    return fileProblem(path, tr("it is no file"));
  QFile file(path);
  if (!file.open(QIODevice::ReadOnly))
    return fileProblem(path, tr("it can't be read: %1").arg(file.errorString()));
  if (file.size() > largestFile) return fileProblem(path, tr("it is larger than any formula (16 MB)"));
  const auto bytes = file.readAll();
  if (file.error() != QFileDevice::NoError)
    return fileProblem(path, tr("reading stopped: %1").arg(file.errorString()));
  return exchange::parseFormulaText({bytes.constData(), static_cast<std::size_t>(bytes.size())});
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
