#include "stations/shelf/agenda_view.h"

#include "document/book_desk.h"
#include "document/formula_file.h"
#include "document/local_day.h"
#include "fields/number_field.h"
#include "paint/beside_or_below.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "print/paper.h"
#include "print/week_sheet.h"
#include "services/prompts.h"
#include "services/units_shown.h"
#include "stations/shelf/agenda_picture.h"
#include "wording/agenda_words.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QComboBox>
#include <QDate>
#include <QDir>
#include <QLineEdit>
#include <QListWidget>
#include <QPrintDialog>
#include <QPrinter>
#include <QPushButton>
#include <QSaveFile>
#include <QVBoxLayout>

namespace butte::app {

using core::ChoreDid;

AgendaView::AgendaView(BookDesk& desk, UnitsShown& units, Prompts& prompts, QWidget* parent)
    : QWidget(parent), m_desk(desk), m_units(units), m_prompts(prompts), m_edits(desk),
      m_picture(new AgendaPicture), m_title(new PlainLabel), m_why(new WrappedLabel),
      m_history(new QListWidget), m_done(new QPushButton(tr("Done"))),
      m_leftOut(new QPushButton(tr("Not this time"))), m_strike(new QPushButton(tr("Chore into the bin"))),
      m_name(new QLineEdit), m_first(new QLineEdit),
      m_every(new NumberField(
          {.name = tr("every so many"), .unit = {}, .least = 1, .most = 3650, .mayBeEmpty = true})),
      m_unit(new QComboBox) {
  auto* view = new BesideOrBelow(16);
  view->add(m_picture, 5);
  view->add(makeSide(), 2);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->addWidget(view, 1);
  connect(m_picture, &AgendaPicture::picked, this, &AgendaView::showDue);
  connect(m_picture, &AgendaPicture::doneAsked, this, [this](int due) { tell(ChoreDid::Done, due); });
  connect(m_picture, &AgendaPicture::movedTo, this,
          [this](int due, const QDate& day) { tell(ChoreDid::Moved, due, dayOf(day)); });
  connect(m_done, &QPushButton::clicked, this, [this] { tell(ChoreDid::Done, m_picture->chosen()); });
  connect(m_leftOut, &QPushButton::clicked, this, [this] { tell(ChoreDid::LeftOut, m_picture->chosen()); });
  connect(m_strike, &QPushButton::clicked, this, &AgendaView::strikeOwn);
}

QWidget* AgendaView::makeSide() {
  auto* side = new QWidget;
  auto* column = new QVBoxLayout(side);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(6);
  m_title->setObjectName("choreTitle");
  m_title->setFont(faceOf(16, true));
  m_title->setWordWrap(true);
  m_why->setObjectName("choreWhy");
  m_done->setObjectName("choreDone");
  m_leftOut->setObjectName("choreLeftOut");
  m_strike->setObjectName("choreStrike");
  m_history->setObjectName("choreHistory");
  m_history->setAccessibleName(tr("when it was done"));
  m_history->setWordWrap(true);
  m_history->setMinimumHeight(40);
  m_history->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Ignored);
  auto* presses = new FlowRow;
  for (auto* press : {m_done, m_leftOut, m_strike})
    presses->addWidget(press);
  column->addWidget(m_title);
  column->addWidget(m_why);
  column->addLayout(presses);
  column->addWidget(m_history, 4);
  column->addStretch(1); // takes the room while there is no history
  column->addWidget(makeNew());
  auto* files = new FlowRow;
  const auto add = [&](const QString& words, const char* object, void (AgendaView::*does)()) {
    auto* button = new QPushButton(words);
    button->setObjectName(object);
    connect(button, &QPushButton::clicked, this, does);
    files->addWidget(button);
  };
  add(tr("Sheet for the wall…"), "weekSheet", &AgendaView::writeSheet);
  add(tr("Print it…"), "weekPrint", &AgendaView::printSheet);
  add(tr("As a calendar file…"), "icsOut", &AgendaView::writeCalendar);
  add(tr("From a calendar file…"), "icsIn", &AgendaView::bringIn);
  column->addLayout(files);
  return side;
}

QWidget* AgendaView::makeNew() {
  auto* box = new QWidget;
  auto* row = new FlowRow(box);
  m_name->setObjectName("choreName");
  m_name->setAccessibleName(tr("what is to be done"));
  m_name->setPlaceholderText(tr("what is to be done: rinse the disc filters"));
  m_name->setMaxLength(200);
  m_first->setObjectName("choreFirst");
  m_first->setAccessibleName(tr("on which day first"));
  m_first->setPlaceholderText(tr("today"));
  m_first->setFixedWidth(100);
  m_every->setObjectName("choreEvery");
  m_every->setFixedWidth(56);
  m_every->onMessage = [this](const QString& words) { emit message(words); };
  m_unit->setObjectName("choreUnit");
  m_unit->setAccessibleName(tr("how it comes again"));
  m_unit->addItem(tr("once"), QString());
  m_unit->addItem(tr("days"), QString("FREQ=DAILY"));
  m_unit->addItem(tr("weeks"), QString("FREQ=WEEKLY"));
  m_unit->addItem(tr("months"), QString("FREQ=MONTHLY"));
  m_unit->addItem(tr("years"), QString("FREQ=YEARLY"));
  m_unit->addItem(tr("days after it was done"), QString("after"));
  m_unit->setCurrentIndex(2);
  auto* keep = new QPushButton(tr("Into the calendar"));
  keep->setObjectName("choreKeep");
  connect(keep, &QPushButton::clicked, this, &AgendaView::keepNew);
  for (auto* field : {m_name, m_first, static_cast<QLineEdit*>(m_every)})
    connect(field, &QLineEdit::returnPressed, this, &AgendaView::keepNew);
  row->addWidget(m_name);
  row->addTogether({new PlainLabel(tr("first")), m_first});
  row->addTogether({new PlainLabel(tr("every")), m_every, m_unit});
  row->addWidget(keep);
  return box;
}

void AgendaView::show(const SharedShelfStory& story, bool readOnly) {
  m_story = story;
  for (auto* press : findChildren<QPushButton*>())
    if (press->objectName() != "weekSheet" && press->objectName() != "weekPrint" &&
        press->objectName() != "icsOut")
      press->setEnabled(!readOnly);
  m_picture->show(story);
  showDue();
}

const book::AgendaItem* AgendaView::chosenItem() const {
  const int due = m_picture->chosen();
  if (due < 0 || due >= static_cast<int>(m_story->agenda.due.size())) return nullptr;
  return &m_story->agenda.items[m_story->agenda.due[static_cast<std::size_t>(due)].chore];
}

void AgendaView::showDue() {
  const auto* item = chosenItem();
  for (auto* press : {m_done, m_leftOut})
    press->setVisible(item != nullptr);
  m_strike->setVisible(item && item->cause == book::Cause::Own);
  m_history->clear();
  m_history->setVisible(item != nullptr);
  if (!item) {
    const auto today = todayText(*m_story);
    m_title->setText(today.isEmpty() ? tr("Nothing to do today") : today);
    m_why->setText(
        m_story->agenda.due.empty()
            ? tr("The book finds by itself when stocks must be mixed, pens calibrated, scales checked, the "
                 "water analysed, bags used or ordered. Other chores: type them below.")
            : tr("Choose a card. Enter or a double click: done. Drag it, or Ctrl with an arrow key: another "
                 "day."));
    return;
  }
  const auto& due = m_story->agenda.due[static_cast<std::size_t>(m_picture->chosen())];
  m_title->setText(choreText(*item));
  QStringList why{dayWords(due.on)};
  if (due.on != due.due) why << tr("moved from %1").arg(dayWords(due.due));
  if (due.missed > 0) why << counted(due.missed, tr("%1 time before missed"), tr("%1 times before missed"));
  auto words = why.join(" · ") + "\n" + causeText(*item);
  if (!item->note.empty()) words += "\n" + qtext(item->note);
  m_why->setText(words);
  for (auto line = m_story->agenda.lines.rbegin(); line != m_story->agenda.lines.rend(); ++line) {
    const auto& told = line->second;
    if (told.key != item->chore.key) continue;
    const auto what = told.did == ChoreDid::Done      ? tr("done")
                      : told.did == ChoreDid::LeftOut ? tr("left out")
                                                      : tr("moved to %1").arg(dayWords(told.to));
    m_history->addItem(
        tr("%1  %2%3")
            .arg(whenText(told.at), what, told.who.empty() ? QString() : tr(" (%1)").arg(qtext(told.who))));
  }
}

void AgendaView::tell(ChoreDid did, int index, core::Day to) {
  if (index < 0 || index >= static_cast<int>(m_story->agenda.due.size())) return;
  if (m_desk.isReadOnly()) return emit message(tr("This book can only be looked at."));
  const auto due = m_story->agenda.due[static_cast<std::size_t>(index)];
  const auto& item = m_story->agenda.items[due.chore];
  const auto name = choreText(item);
  const auto trouble = m_edits.tell(item, due.due, did, name, to);
  m_picture->choose(-1);
  said(trouble, did == ChoreDid::Done      ? tr("Done: %1. Ctrl+Z takes it back.").arg(name)
                : did == ChoreDid::LeftOut ? tr("Not this time: %1. Ctrl+Z takes it back.").arg(name)
                                           : tr("%1: on %2. Ctrl+Z takes it back.").arg(name, dayWords(to)));
}

void AgendaView::keepNew() {
  book::Chore chore;
  chore.name = m_name->text().simplified().toStdString();
  if (chore.name.empty()) return emit message(tr("What is to be done? Type it first."));
  if (m_every->isWrong()) return emit message(m_every->message());
  auto first = QDate::currentDate();
  if (const auto typed = m_first->text().trimmed(); !typed.isEmpty()) {
    first = QDate::fromString(typed, Qt::ISODate);
    if (!first.isValid()) first = QLocale().toDate(typed, QLocale::ShortFormat);
    if (!first.isValid() || first.year() < 1990 || first.year() > 2200)
      return emit message(tr("“%1” is no day; 2027-05-31 would be one.").arg(typed));
  }
  chore.starts = dayOf(first);
  const int every = std::max(1, m_every->digits().toInt());
  const auto how = m_unit->currentData().toString();
  if (how == "after")
    chore.afterDays = every;
  else if (!how.isEmpty())
    chore.repeat = (how + (every > 1 ? QString(";INTERVAL=%1").arg(every) : QString())).toStdString();
  const auto kept = m_edits.keep(chore);
  if (!kept) return emit message(problemWords(kept.problem()));
  m_name->clear();
  m_first->clear();
  m_every->show({});
  emit message(tr("In the calendar; Ctrl+Z takes it back."));
}

void AgendaView::strikeOwn() {
  const auto* item = chosenItem();
  if (!item || item->cause != book::Cause::Own) return;
  const auto name = qtext(item->name), uid = qtext(item->uid);
  m_picture->choose(-1);
  said(m_edits.strike(uid.toStdString(), name), tr("In the bin: %1; Ctrl+Z brings it back.").arg(name));
}

void AgendaView::writeCalendar() {
  const auto path = m_prompts.fileToMake(
      tr("The calendar as a file"), QDir::home().filePath(tr("to do") + ".ics"), tr("Calendars (*.ics)"));
  if (path.isEmpty()) return;
  std::vector<QString> names;
  for (const auto& item : m_story->agenda.items)
    names.push_back(choreText(item));
  QSaveFile file(path);
  if (!file.open(QIODevice::WriteOnly) || !writeAll(file, m_edits.calendar(m_story->agenda, names)) ||
      !file.commit())
    return emit message(tr("%1 can't be written: %2").arg(path, file.errorString()));
  emit message(tr("The calendar is in %1.").arg(path));
}

void AgendaView::bringIn() {
  const auto path =
      m_prompts.fileToOpen(tr("A calendar from a file"), QDir::homePath(), tr("Calendars (*.ics)"));
  if (path.isEmpty()) return;
  constexpr qint64 largest = 4 << 20;
  const auto bytes = fileBytes(path, largest);
  if (!bytes) return emit message(problemWords(bytes.problem()));
  const auto came = m_edits.bringIn(*bytes);
  if (!came) return emit message(problemWords(came.problem()));
  auto words = came->came == 0 ? tr("Nothing new came.")
                               : counted(came->came, tr("%1 chore came in; Ctrl+Z takes it back."),
                                         tr("%1 chores came in; Ctrl+Z takes them back."));
  if (came->passedOver > 0)
    words += counted(came->passedOver,
                     tr(" %1 entry without a day or name, or repeated within a day, was passed over."),
                     tr(" %1 entries without a day or name, or repeated within a day, were passed over."));
  emit message(words);
}

void AgendaView::writeSheet() {
  const auto path = m_prompts.fileToMake(tr("Sheet for the wall"), QDir::home().filePath(tr("week") + ".pdf"),
                                         tr("PDF (*.pdf)"));
  if (path.isEmpty()) return;
  const auto trouble =
      writePdf({weekSheet(*m_story, qtext(m_desk.book().farm()))}, m_units.pageSize(), path, tr("To do"));
  emit message(trouble.isEmpty() ? tr("The sheet is in %1.").arg(path) : trouble);
}

void AgendaView::printSheet() {
  QPrinter printer(QPrinter::HighResolution);
  printer.setPageSize(m_units.pageSize());
  QPrintDialog dialog(&printer, this);
  if (dialog.exec() == QDialog::Accepted)
    paintPages({weekSheet(*m_story, qtext(m_desk.book().farm()))}, printer);
}

void AgendaView::said(const book::Trouble& trouble, const QString& done) {
  emit message(trouble ? problemWords(*trouble) : done);
}

} // namespace butte::app
