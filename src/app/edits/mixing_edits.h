#pragma once
#include "bench/weigh_plan.h"
#include "edits/edits.h"

namespace butte::app {

/// How the salts get into the feed: through stock tanks, or straight into one vessel; each one step of undo.
/// What was typed of the other way stays.
class MixingEdits : public Edits {
public:
  using Edits::Edits;

  bool isDirect() const;
  void setDirect(bool direct);
  /// Of the same feed, in the vessel already; no digits: it is empty.
  exchange::Amount present() const { return figure("/direct/present"); }
  void setPresent(const exchange::Amount& volume);
  /// What that reads; no digits: full strength.
  exchange::Amount reading() const { return figure("/direct/reading"); }
  void setReading(const exchange::Amount& conductivity);
  /// Acids and bases before the salts, or after them.
  core::AcidTurn acidTurn() const;
  void setAcidTurn(core::AcidTurn turn);

private:
  void put(const Deed& deed, const char* key, const exchange::Amount& amount);
};

} // namespace butte::app
