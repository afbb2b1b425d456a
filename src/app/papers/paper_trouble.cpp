#include "papers/paper_trouble.h"

#include "wording/tr.h"

namespace butte::app {

QString paperTroubleText(scan::PaperTrouble trouble) {
  using scan::PaperTrouble;
  switch (trouble) {
  case PaperTrouble::NoPaper:
    return tr("It is neither a PDF nor a picture that can be read.");
  case PaperTrouble::TooLarge:
    return tr("It is too large: 64 MB at most.");
  case PaperTrouble::Locked:
    return tr("The PDF wants a password: open it elsewhere, copy its text and paste it here.");
  case PaperTrouble::NoReader:
    return tr("Pictures can't be read here: the package tesseract-ocr-eng is missing.");
  case PaperTrouble::NothingToRead:
    return tr("No text was found in it. A sharp picture from straight above, in good light, helps.");
  case PaperTrouble::Stopped:
    return tr("Stopped.");
  }
  return {};
}

} // namespace butte::app
