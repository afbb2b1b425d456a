#pragma once
#include "amount.h"
#include "book/record.h"

#include <QStringList>
#include <QWidget>
#include <functional>
#include <memory>

class QVBoxLayout;

namespace butte::app {

class BookDesk;
class ThingEdits;

/// What is known of a chosen thing beside its figures, to be typed: a target's crop, stage and season; a
/// product's bag, hazards and look; notes.
class ThingFacts : public QWidget {
  Q_OBJECT

public:
  explicit ThingFacts(BookDesk& desk, QWidget* parent = nullptr);
  ~ThingFacts() override;
  /// Shows a record; a field that is being typed in is left alone.
  void show(const book::Record& record);

signals:
  void message(const QString& words);

private:
  void build();
  void addText(const QString& label, const std::string& key, const QString& hint);
  struct Measure {
    QString label, id;
    QStringList units; ///< keys, the usual one first
    double least, most;
  };
  void addAmount(const Measure& measure, const exchange::Amount& known,
                 const std::function<book::Trouble(const exchange::Amount&)>& keepIt);
  void addSaid();
  void addBag();
  void addVolume();
  void addHazards();
  void addLook();
  void addReport(std::size_t index);
  void addUpkeep(const std::string& what, const QString& usualMonths);
  void keep(const std::function<book::Trouble()>& edit);

  BookDesk& m_desk;
  std::unique_ptr<ThingEdits> m_edits;
  QVBoxLayout *m_column, *m_rows = nullptr;
  QWidget* m_content = nullptr;
  bool m_setting = false;
};

} // namespace butte::app
