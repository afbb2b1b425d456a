#pragma once
#include "document/background.h"
#include "document/tank_story.h"
#include "edits/tank_edits.h"

#include <QString>
#include <QWidget>
#include <memory>
#include <vector>

class QLabel;
class QPushButton;
class QStackedWidget;

namespace butte::app {

class AdviceMatrix;
class BookDesk;
class ElementBands;
class FactsPanel;
class FillingCombo;
class FlowRow;
class LogEntry;
class LogList;
class RootPanel;
class VesselCard;
class WarmthPanel;
class StreamDesk;
class TankPicture;
class UnitsShown;
class WhileSeen;
class WrappedLabel;
struct Prompts;

/// A vessel's story and what it was told from.
struct TankTold {
  TankGiven given;
  TankStory story;
  book::Trouble trouble;
};

/// Vessels that are kept: what stands in each, where it is heading, what to pour in now.
class TankPage : public QWidget {
  Q_OBJECT

public:
  TankPage(BookDesk& desk, UnitsShown& units, Prompts& prompts, StreamDesk& streams,
           QWidget* parent = nullptr);
  /// The vessel in hand.
  void showVessel(const std::string& uid);
  const std::string& vessel() const { return m_vessel; }
  /// Nothing is being worked out any more.
  bool isSettled() const { return !m_work.isBusy() && !m_look.isBusy() && !m_lay.isBusy(); }
  const TankStory& story() const { return m_story; }
  const book::VesselFacts& facts() const { return m_given.facts; }
  void focusFirst();

signals:
  void message(const QString& words);
  void loggersAsked();
  /// Salts of the vessel's formula (parallel to its shelf) are to be weighed for it, and go in with water.
  void benchAsked(const std::vector<butte::core::Mass>& grams, butte::core::Volume water);
  /// A feed as plants take it becomes the target of the formula in hand.
  void targetAsked(const butte::core::FeedContent& feed);

protected:
  void showEvent(QShowEvent* event) override;

private:
  QWidget* makeSide();
  QWidget* makeBelow();
  void refresh();
  void refreshCards(const std::vector<book::RecordHead>& heads);
  void showCard(VesselCard& card);
  void work();
  void take(TankTold told);
  void lookCloser();
  void forgetStory();
  void layOver();
  void showAdvice(int advice);
  void doAdvice(int advice);
  void logFills();
  void writeLog();
  void bringLogIn();
  void newVessel();
  bool keepReadings(const TypedReadings& typed);
  bool keepLine(book::TankLine line);
  bool heard(const book::Trouble& trouble, const QString& done);

  BookDesk& m_desk;
  UnitsShown& m_units;
  Prompts& m_prompts;
  StreamDesk& m_streams;
  TankEdits m_edits;
  Background m_work, m_look, m_lay;
  std::string m_vessel;
  VesselLog m_log;
  TankGiven m_given;
  TankStory m_story;
  FlowRow* m_cardRow;
  std::vector<VesselCard*> m_cards;
  QPushButton *m_new, *m_loggers;
  TankPicture* m_picture;
  ElementBands* m_elements;
  AdviceMatrix* m_advice;
  LogEntry* m_entry;
  LogList* m_list;
  FactsPanel* m_facts;
  RootPanel* m_root;
  WarmthPanel* m_warmth;
  QStackedWidget* m_side;
  WrappedLabel *m_ahead, *m_doing;
  QPushButton *m_do, *m_weigh, *m_fills;
  FillingCombo* m_over;
  WhileSeen* m_seen;
};

} // namespace butte::app
