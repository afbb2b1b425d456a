#pragma once
#include "document/shelf_story.h"
#include "edits/lot_edits.h"

#include <QWidget>
#include <functional>
#include <optional>
#include <vector>

class QComboBox;
class QLabel;
class QLineEdit;
class QListWidget;
class QPushButton;

namespace butte::app {

class NumberField;
class UnitsShown;
class WrappedLabel;

/// One product's lots: what is left of each, what was done to it, and what is done now: a count, waste, an
/// opening, a dried sample.
class LotPanel : public QWidget {
  Q_OBJECT

public:
  LotPanel(LotEdits& edits, UnitsShown& units, QWidget* parent = nullptr);
  /// `readOnly`: nothing can be told.
  void show(const SharedShelfStory& story, const std::string& product, bool readOnly);
  /// What the scale beside shows and has come to rest at; nothing without one.
  std::function<std::optional<core::Mass>()> scaleShows;

signals:
  void message(const QString& words);
  void deliveryAsked();
  void correctionAsked(const QString& lot);

private:
  QWidget* makeTelling();
  QWidget* makeLots();
  void lotChosen();
  void didChosen();
  void tell();
  void takeFromScale();
  void strikeLine();
  void strikeLot();
  std::optional<std::size_t> chosenLot() const; ///< index into the story's lots
  exchange::Amount typed(const NumberField* field) const;
  void said(const book::Trouble& trouble, const QString& done);

  LotEdits& m_edits;
  UnitsShown& m_units;
  SharedShelfStory m_story = std::make_shared<const ShelfStory>();
  std::string m_product, m_lot;
  std::vector<std::size_t> m_shown; ///< lots of the list
  std::vector<std::string> m_lines; ///< uids of the list of lines
  QLabel* m_title;
  WrappedLabel *m_facts, *m_damp;
  QListWidget *m_lots, *m_history;
  QComboBox* m_did;
  NumberField *m_amount, *m_dried, *m_sealed, *m_sealedDried;
  QLabel* m_unit;
  QLineEdit* m_text;
  QWidget *m_telling, *m_sample;
  QPushButton *m_log, *m_scale, *m_strike, *m_delivery, *m_correct, *m_strikeLot;
};

} // namespace butte::app
