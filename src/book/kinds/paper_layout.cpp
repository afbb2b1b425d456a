// What was answered about the layout of another's paper.
#include "book/paper_layouts.h"
#include "kinds/kind_info.h"

namespace butte::book {

const KindInfo kinds::paperLayout{.kind = Kind::PaperLayout,
                                  .code = "paper_layout",
                                  .one = "paper layout",
                                  .many = "paper layouts",
                                  .check = checkLayout};

} // namespace butte::book
