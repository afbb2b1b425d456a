// A logger that is listened to, and what its figures mean.
#include "book/stream.h"

#include "kinds/kind_info.h"

namespace butte::book {

namespace {
Trouble checkStream(const Json& body) {
  const auto stream = streamFromJson(body);
  return stream ? Trouble() : Trouble(stream.problem());
}
} // namespace

const KindInfo kinds::stream{.kind = Kind::Stream,
                             .code = "stream",
                             .one = "logger",
                             .many = "loggers",
                             .check = checkStream,
                             .isListed = false};

} // namespace butte::book
