#include "stations/target/target_page.h"

#include "document/book_desk.h"
#include "document/formula_editor.h"
#include "edits/formula_edits.h"
#include "edits/keep_and_use.h"
#include "edits/target_edits.h"
#include "fields/filling_combo.h"
#include "fields/number_field.h"
#include "paint/beside_or_below.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "refresh/while_seen.h"
#include "stations/target/stage_line.h"
#include "stations/target/target_balance.h"
#include "stations/target/target_strength.h"
#include "stations/target/target_table.h"
#include "stations/target/target_wishes.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

namespace butte::app {

namespace {
constexpr int shortestChoice = 14; // letters
constexpr int narrowestName = 190;
constexpr int sideWidth = 304;
} // namespace

TargetPage::TargetPage(FormulaEditor& editor, UnitsShown& units, BookDesk& desk, QWidget* parent)
    : QWidget(parent), m_editor(editor), m_desk(desk), m_choice(new QComboBox), m_compare(new FillingCombo),
      m_name(new QLineEdit), m_crop(new QLineEdit), m_stage(new QLineEdit),
      m_week(new NumberField({tr("week the stage begins"), "", 0, 200, true})),
      m_table(new TargetTable(editor)), m_stages(new StageLine(editor, desk)) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(6);
  column->addWidget(makeHead());
  column->addWidget(m_stages);
  column->addWidget(makeStageKeeper());
  auto* strength = new TargetStrength(editor, units);
  auto* wishes = new TargetWishes(editor);
  auto* right = new QVBoxLayout;
  right->setSpacing(10);
  right->addWidget(new TargetBalancePanel(editor));
  right->addWidget(strength);
  right->addWidget(wishes);
  right->addStretch();
  auto* side = new QWidget;
  side->setLayout(right);
  right->setContentsMargins(0, 0, 0, 0);
  side->setMinimumWidth(sideWidth); // no wider beside the table; below it takes the whole width
  side->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  m_table->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Minimum); // its rows are not squeezed
  auto* body = new BesideOrBelow(14);
  for (const auto& [part, share] : {std::pair<QWidget*, int>{m_table, 1}, {side, 0}}) {
    auto* room = new QVBoxLayout;
    room->addWidget(part, 1);
    body->add(room, share);
  }
  column->addWidget(body, 1);
  for (auto* part : std::initializer_list<QWidget*>{m_table, strength, wishes})
    connect(part, SIGNAL(message(QString)), this, SIGNAL(message(QString)));
  connect(m_stages, &StageLine::chosen, this,
          [this](const book::Ref& ref) { emit message(useInFormula(m_desk, m_editor, ref)); });
  auto* fresh = new WhileSeen(this, [this] { refresh(); });
  connect(&editor, &FormulaEditor::changed, fresh, &WhileSeen::outdate);
  refresh();
}

QWidget* TargetPage::makeHead() {
  auto* box = new QWidget;
  auto* row = new FlowRow(box);
  m_choice->setObjectName("targetChoice");
  m_choice->setAccessibleName(tr("published targets"));
  m_choice->setMaxVisibleItems(24);
  readChoices(*m_choice, tr("Take a target…"));
  connect(m_choice, &QComboBox::activated, this, &TargetPage::choose);
  m_name->setObjectName("targetName");
  m_name->setAccessibleName(tr("name of the target"));
  connect(m_name, &QLineEdit::textEdited, this,
          [this](const QString& text) { TargetEdits(m_editor).setName(text); });
  m_compare->setObjectName("targetCompare");
  m_compare->setAccessibleName(tr("compare with another target"));
  m_compare->setMaxVisibleItems(24);
  m_compare->fill = [this] { fillCompare(); };
  fillCompare();
  connect(m_compare, &QComboBox::activated, this, &TargetPage::compare);
  for (auto* part : std::initializer_list<QComboBox*>{m_choice, m_compare}) {
    part->setMinimumContentsLength(shortestChoice);
    part->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    part->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
  }
  m_name->setMinimumWidth(narrowestName);
  auto* several = new QPushButton(tr("Several crops…"));
  several->setObjectName("severalCrops");
  several->setToolTip(tr("One set of stock tanks for several crops: what each gives up"));
  connect(several, &QPushButton::clicked, this, &TargetPage::severalAsked);
  for (auto* part : std::initializer_list<QWidget*>{m_name, m_choice, m_compare, several})
    row->addWidget(part);
  return box;
}

/// A target becomes a stage of its crop: kept in the book with its week.
QWidget* TargetPage::makeStageKeeper() {
  auto* box = new QWidget;
  auto* row = new FlowRow(box, 5);
  m_crop->setObjectName("targetCrop");
  m_crop->setPlaceholderText(tr("crop"));
  m_crop->setAccessibleName(tr("crop"));
  m_crop->setFixedWidth(130);
  connect(m_crop, &QLineEdit::textEdited, this,
          [this](const QString& text) { FormulaEdits(m_editor).setCrop(text, true); });
  m_stage->setObjectName("targetStage");
  m_stage->setPlaceholderText(tr("stage"));
  m_stage->setAccessibleName(tr("stage"));
  m_stage->setFixedWidth(120);
  m_week->setObjectName("targetWeek");
  m_week->setFixedWidth(44);
  m_week->onMessage = [this](const QString& words) { emit message(words); };
  auto* keep = new QPushButton(tr("Keep as a stage"));
  keep->setObjectName("keepStage");
  keep->setToolTip(tr("This target goes into the book under its name, with crop, stage and week"));
  connect(keep, &QPushButton::clicked, this, [this] {
    if (!m_desk.isOpen() || m_week->isWrong()) return;
    emit message(keepStage(m_desk, m_editor, m_stage->text().trimmed(), m_week->text()));
  });
  row->addWidget(m_crop);
  row->addWidget(m_stage);
  row->addTogether({new PlainLabel(tr("from week")), m_week});
  row->addWidget(keep);
  row->addStretch();
  auto* hint = new PlainLabel(tr("Empty: no target. N is the sum of its forms."));
  hint->setProperty("soft", true);
  hint->setFont(faceOf(11));
  row->addWidget(hint);
  return box;
}

void TargetPage::refresh() {
  for (const auto& [field, text] : {std::pair{m_name, qtext(m_editor.document().targetName)},
                                    std::pair{m_crop, qtext(m_editor.document().crop)}}) {
    if (field->text() != text) field->setText(text);
  }
}

void TargetPage::readChoices(QComboBox& box, const QString& first) {
  box.addItem(first);
  for (int i = 0; const auto& target : sampleTargets())
    box.addItem(tr("demo · %1").arg(target.name), i++);
  for (const auto& t : core::targetCatalogue())
    box.addItem(targetTitle(t), qtext(t.id));
}

void TargetPage::fillCompare() {
  const auto chosen = m_compare->currentText();
  m_compare->clear();
  readChoices(*m_compare, tr("Compare with…"));
  const auto heads = m_desk.isOpen()
                         ? m_desk.book().store().list(book::Kind::Target, false)
                         : core::Result<std::vector<book::RecordHead>>(std::vector<book::RecordHead>{});
  int at = 1;
  if (heads) {
    for (const auto& head : *heads)
      m_compare->insertItem(at++, tr("own · %1").arg(qtext(head.name)), "uid:" + qtext(head.ref.uid));
  }
  m_compare->setCurrentIndex(std::max(0, m_compare->findText(chosen)));
}

void TargetPage::compare(int index) {
  const auto chosen = m_compare->itemData(index);
  if (chosen.typeId() == QMetaType::Int)
    return m_table->compareWith(sampleTargets()[static_cast<std::size_t>(chosen.toInt())].rows);
  const auto key = chosen.toString();
  if (key.startsWith("uid:")) return m_table->compareWith(targetInBook(m_desk, key.mid(4).toStdString()));
  const auto* target = core::findTarget(key.toStdString());
  m_table->compareWith(target ? target->rows : std::vector<core::TargetRow>());
}

void TargetPage::choose(int index) {
  const auto chosen = m_choice->itemData(index);
  m_choice->setCurrentIndex(0);
  if (chosen.typeId() == QMetaType::Int)
    return TargetEdits(m_editor).takeSample(static_cast<std::size_t>(chosen.toInt()));
  const auto* target = core::findTarget(chosen.toString().toStdString());
  if (!target) return;
  TargetEdits(m_editor).take(*target);
  emit message(
      tr("%1: %2, confidence %3. %4")
          .arg(qtext(target->name), qtext(target->source), qtext(target->confidence), qtext(target->note)));
}

} // namespace butte::app
