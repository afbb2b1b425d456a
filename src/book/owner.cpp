#include "owner.h"

#include <QString>
#include <QSysInfo>
#include <fcntl.h>
#include <filesystem>
#include <sys/file.h>
#include <sys/stat.h>
#include <unistd.h>

namespace butte::book {

namespace {

std::string readAll(int file) {
  std::string text;
  char buffer[1024];
  ::lseek(file, 0, SEEK_SET);
  for (ssize_t got; text.size() < 4096 && (got = ::read(file, buffer, sizeof buffer)) > 0;)
    text.append(buffer, static_cast<std::size_t>(got));
  return text;
}

/// A name as it may be shown: no control characters, and no novel.
std::string shown(const std::string& name) {
  constexpr int longest = 60;
  QString out;
  for (const auto c : QString::fromStdString(name).left(longest))
    out += c.isPrint() ? c : QChar('?');
  return out.toStdString();
}

/// Whose mark the file holds. Nothing: it is empty, or none of ours.
std::optional<Owner> ownerIn(int file) {
  const auto json = exchange::parsedOrNothing(readAll(file));
  if (!json.is_object() || !json.contains("host") || !json.contains("since")) return std::nullopt;
  const auto text = [&](const char* key) {
    return json.contains(key) && json[key].is_string() ? json[key].get<std::string>() : std::string();
  };
  return Owner{shown(text("host")), shown(text("user")), Moment::fromIso(text("since")).value_or(Moment{}),
               Moment::fromIso(text("heard")).value_or(Moment{})};
}

/// Whether the name still leads to the open file: its holder may have taken the mark away in between.
bool stillThere(int file, const std::string& path) {
  struct stat open {
  }, named{};
  return ::fstat(file, &open) == 0 && ::stat(path.c_str(), &named) == 0 && open.st_ino == named.st_ino &&
         open.st_dev == named.st_dev;
}

std::string hostName() {
  return QSysInfo::machineHostName().toStdString();
}

std::string userName() {
  const auto name = qEnvironmentVariable("USER", qEnvironmentVariable("LOGNAME"));
  return name.isEmpty() ? "somebody" : name.toStdString();
}

} // namespace

namespace {

/// The mark's file, opened without following a link and without waiting for anybody; -1 where it can't be.
int openMark(const std::string& path, int flags) {
  const int file = ::open(path.c_str(), flags | O_CLOEXEC | O_NOFOLLOW | O_NONBLOCK | O_NOCTTY, 0600);
  struct stat about {};
  if (file < 0 || (::fstat(file, &about) == 0 && S_ISREG(about.st_mode))) return file;
  ::close(file);
  return -1;
}

/// What stands in the mark's place and is no mark (a link, a pipe, somebody's note) goes aside under another
/// name: nothing is lost, and nobody is locked out by it.
bool moveAside(const std::string& path) {
  for (int number = 1; number < 100; ++number) {
    const auto aside = path + "-aside" + std::to_string(number);
    struct stat there {};
    if (::lstat(aside.c_str(), &there) != 0) return ::rename(path.c_str(), aside.c_str()) == 0;
  }
  return false;
}

/// A mark that this person may only read, left by another one whose program is gone: taken away where the
/// folder lets it. False: it stands in the way.
bool clearLeftover(const std::string& path, const std::string& host) {
  const int file = openMark(path, O_RDONLY);
  if (file < 0) return false;
  const auto found = ownerIn(file);
  const bool dead = ::flock(file, LOCK_EX | LOCK_NB) == 0 && (!found || found->host == host);
  const bool gone = dead && ::unlink(path.c_str()) == 0;
  ::close(file);
  return gone;
}

/// Opens the mark to write in it, whatever stood in its place.
int claimMark(const std::string& path, const std::string& host) {
  int file = openMark(path, O_RDWR | O_CREAT);
  struct stat there {};
  if (file < 0 && ::lstat(path.c_str(), &there) == 0) {
    const bool cleared = S_ISREG(there.st_mode) ? clearLeftover(path, host) : moveAside(path);
    if (cleared) file = openMark(path, O_RDWR | O_CREAT);
  }
  return file;
}

/// One book has one mark, by whatever link it is reached.
std::string markOf(const std::string& bookPath) {
  std::error_code none;
  const auto real = std::filesystem::weakly_canonical(bookPath, none);
  return (none ? bookPath : real.string()) + ".owner";
}

} // namespace

std::variant<std::unique_ptr<OwnerMark>, Owner> OwnerMark::take(const std::string& bookPath, bool takeOver) {
  const auto path = markOf(bookPath);
  const auto now = Moment::now();
  const Owner me{hostName(), userName(), now, now};
  const int file = claimMark(path, me.host);
  if (file < 0) return Owner{"", "", now, now}; // no right to write here: nobody is named
  const auto found = ownerIn(file);
  const bool locked = ::flock(file, LOCK_EX | LOCK_NB) == 0;
  const bool elsewhere = found && !found->host.empty() && found->host != me.host;
  const bool silent = found && now.seconds - found->heard.seconds > silentSeconds;
  const bool foreign = locked && !found && !readAll(file).empty(); // a file, but no mark
  if (locked && (!stillThere(file, path) || (foreign && moveAside(path)))) {
    ::close(file);
    return take(bookPath, takeOver);
  }
  if (!locked || (elsewhere && !(takeOver && silent))) {
    ::close(file);
    return found.value_or(Owner{"", "", now, now});
  }
  std::unique_ptr<OwnerMark> mark(new OwnerMark(path, file, me));
  if (!mark->write()) return Owner{"", "", now, now};
  return mark;
}

OwnerMark::~OwnerMark() {
  const auto found = ownerIn(m_file);
  if (found && found->host == m_me.host && found->since == m_me.since) {
    ::unlink(m_path.c_str());
  }
  ::close(m_file);
}

bool OwnerMark::write() {
  const auto text =
      Json{{"host", m_me.host}, {"user", m_me.user}, {"since", m_me.since.iso()}, {"heard", m_me.heard.iso()}}
          .dump() +
      "\n";
  if (::lseek(m_file, 0, SEEK_SET) != 0 ||
      ::write(m_file, text.data(), text.size()) != static_cast<ssize_t>(text.size()))
    return false;
  return ::ftruncate(m_file, static_cast<off_t>(text.size())) == 0;
}

bool OwnerMark::holds() {
  struct stat named {};
  if (::lstat(m_path.c_str(), &named) != 0) { // tidied away by somebody: set up anew, unless one was faster
    const int anew = openMark(m_path, O_RDWR | O_CREAT | O_EXCL);
    if (anew < 0 || ::flock(anew, LOCK_EX | LOCK_NB) != 0) {
      if (anew >= 0) ::close(anew);
      return false;
    }
    ::close(m_file);
    m_file = anew;
    return write();
  }
  const auto found = ownerIn(m_file);
  return stillThere(m_file, m_path) && (!found || (found->host == m_me.host && found->since == m_me.since));
}

bool OwnerMark::beat() {
  if (!holds()) return false;
  m_me.heard = Moment::now();
  return write();
}

} // namespace butte::book
