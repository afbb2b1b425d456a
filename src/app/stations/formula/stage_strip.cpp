#include "stations/formula/stage_strip.h"

#include "document/formula_editor.h"
#include "edits/stage_edits.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "refresh/while_seen.h"
#include "services/prompts.h"
#include "wording/tr.h"

#include <QButtonGroup>
#include <QHBoxLayout>
#include <QMenu>
#include <QPushButton>

namespace butte::app {

StageStrip::StageStrip(FormulaEditor& editor, Prompts& prompts, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_prompts(prompts), m_row(new FlowRow(this)),
      m_buttons(new QButtonGroup(this)), m_rest(new QWidget) {
  setObjectName("stageStrip");
  auto* more = new QPushButton(tr("Another stage…"));
  more->setObjectName("stageAdd");
  more->setToolTip(
      tr("A copy of this stage under another name: its own target and weights, the same water, shelf and "
         "tanks"));
  connect(more, &QPushButton::clicked, this, &StageStrip::addStage);
  auto* card = new QPushButton(tr("Card of all stages…"));
  card->setObjectName("stageCard");
  card->setToolTip(tr("All stages side by side on one page, for the wall"));
  connect(card, &QPushButton::clicked, this, &StageStrip::cardAsked);
  auto* rest = new QHBoxLayout(m_rest);
  rest->setContentsMargins(0, 0, 0, 0);
  rest->addWidget(more);
  rest->addWidget(card);
  m_row->addWidget(new PlainLabel(tr("Stage")));
  m_row->addWidget(m_rest);
  connect(m_buttons, &QButtonGroup::idClicked, this, &StageStrip::press);
  auto* fresh = new WhileSeen(this, [this] { refresh(); });
  connect(&editor, &FormulaEditor::changed, this, [this, fresh] {
    setVisible(!m_editor.document().stages.empty());
    fresh->outdate();
  });
  setVisible(!editor.document().stages.empty());
  fresh->outdate();
}

void StageStrip::refresh() {
  const StageEdits edits(m_editor);
  const auto names = edits.names();
  auto shown = m_buttons->buttons();
  bool same = shown.size() == static_cast<qsizetype>(names.size());
  for (qsizetype i = 0; same && i < shown.size(); ++i)
    same = shown[i]->text().toStdString() == names[static_cast<std::size_t>(i)];
  if (!same) {
    qDeleteAll(shown);
    while (m_row->count() > 1)
      delete m_row->takeAt(1);
    for (int i = 0; i < static_cast<int>(names.size()); ++i) {
      auto* button = new QPushButton(QString::fromStdString(names[static_cast<std::size_t>(i)]));
      button->setObjectName(QString("stage%1").arg(i));
      button->setCheckable(true);
      button->setContextMenuPolicy(Qt::CustomContextMenu);
      button->setToolTip(tr("Opens this stage; a right click renames or removes it"));
      connect(button, &QWidget::customContextMenuRequested, this,
              [this, i, button](const QPoint& at) { showMenu(i, button->mapToGlobal(at)); });
      m_buttons->addButton(button, i);
      m_row->addWidget(button);
    }
    m_row->addWidget(m_rest);
  }
  if (auto* button = m_buttons->button(static_cast<int>(edits.inHand()))) button->setChecked(true);
}

void StageStrip::press(int stage) {
  StageEdits(m_editor).takeInHand(static_cast<std::size_t>(stage));
}

void StageStrip::addStage() {
  StageEdits edits(m_editor);
  QString first;
  if (edits.names().empty()) {
    first = m_prompts.words(tr("Stages of one crop"),
                            tr("What the formula as it stands is called among them"), tr("normal"));
    if (first.isEmpty()) return;
  }
  const auto name =
      m_prompts.words(tr("Stages of one crop"),
                      tr("The new stage: its own target and weights; the same water, shelf and tanks"),
                      first.isEmpty() ? QString() : tr("boosted"));
  if (name.isEmpty()) return;
  if (!edits.add(first.trimmed().toStdString(), name.trimmed().toStdString())) emit message(refusedName());
}

QString StageStrip::refusedName() const {
  return tr("Not done: a name that no other stage has, and at most eight stages.");
}

void StageStrip::rename(int stage) {
  const auto at = static_cast<std::size_t>(stage);
  const auto name = m_prompts.words(tr("Name of the stage"), tr("Name"),
                                    QString::fromStdString(StageEdits(m_editor).names().at(at)));
  if (!name.isEmpty() && !StageEdits(m_editor).rename(at, name.trimmed().toStdString()))
    emit message(refusedName());
}

void StageStrip::remove(int stage) {
  StageEdits(m_editor).remove(static_cast<std::size_t>(stage));
}

void StageStrip::showMenu(int stage, const QPoint& at) {
  QMenu menu(this);
  menu.setObjectName("stageMenu");
  const bool inHand = StageEdits(m_editor).inHand() == static_cast<std::size_t>(stage);
  // Queued: the button goes with it.
  menu.addAction(tr("Name…"), this, [this, stage] { rename(stage); })->setObjectName("stageRename");
  auto* away = menu.addAction(tr("Remove"), this, [this, stage] {
    QMetaObject::invokeMethod(
        this, [this, stage] { remove(stage); }, Qt::QueuedConnection);
  });
  away->setObjectName("stageRemove");
  away->setEnabled(!inHand);
  menu.exec(at);
}

} // namespace butte::app
