#pragma once
#include "book/record.h"

#include <QWidget>

class QVBoxLayout;

namespace butte::app {

class BookDesk;

/// What is known of a chosen thing beside its figures, to be typed: a target's crop, stage and season; a
/// product's bag, hazards and look; notes.
class ThingFacts : public QWidget {
  Q_OBJECT

public:
  explicit ThingFacts(BookDesk& desk, QWidget* parent = nullptr);
  /// Shows a record; a field that is being typed in is left alone.
  void show(const book::Record& record);

signals:
  void message(const QString& words);

private:
  void build();
  void addText(const QString& label, const std::string& key, const QString& hint);
  void addBag();
  void addHazards();
  void addLook();
  void addReport(std::size_t index);
  void addUpkeep(const std::string& what, const QString& usualMonths);
  void setUpkeep(const std::string& what, const char* key, const QString& text);
  void set(const QString& words, const std::string& key, const exchange::Json& value);
  QString text(const std::string& pointer) const;

  BookDesk& m_desk;
  QVBoxLayout *m_column, *m_rows = nullptr;
  QWidget* m_content = nullptr;
  book::Ref m_ref;
  exchange::Json m_body;
  bool m_setting = false;
};

} // namespace butte::app
