#pragma once
#include "moment.h"
#include "record.h"

#include <memory>
#include <string>
#include <variant>

namespace butte::book {

/// Who has a book open for writing.
struct Owner {
  std::string host, user;
  Moment since, heard; ///< when it was opened; when the holder last gave a sign of life
};

/// The right to write in a book, while it lasts.
class Ownership {
public:
  virtual ~Ownership() = default;
  /// A sign of life; to be given every minute. False: somebody else has taken the book over.
  virtual bool beat() = 0;
  /// Whether it still lasts: asked inside every transaction. Cheap.
  virtual bool holds() = 0;
};

/// The mark beside a book ("NAME.owner") that says who writes in it. On one computer the system's lock on
/// that file tells whether the holder still lives; across computers its sign of life does.
class OwnerMark : public Ownership {
public:
  static constexpr int silentSeconds =
      180; ///< a holder on another computer that is silent for longer may be gone

  /// The mark, or the owner that is in the way. With `takeOver` a silent owner on another computer gives way.
  static std::variant<std::unique_ptr<OwnerMark>, Owner> take(const std::string& bookPath,
                                                              bool takeOver = false);
  ~OwnerMark() override;
  OwnerMark(const OwnerMark&) = delete;
  OwnerMark& operator=(const OwnerMark&) = delete;

  bool beat() override;
  bool holds() override;

private:
  OwnerMark(std::string path, int file, Owner me)
      : m_path(std::move(path)), m_file(file), m_me(std::move(me)) {}
  bool write();
  std::string m_path;
  int m_file;
  Owner m_me;
};

} // namespace butte::book
