#include "owner.h"

#include <QString>
#include <QSysInfo>
#include <fcntl.h>
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

std::optional<Owner> ownerIn(int file) {
  const auto json = Json::parse(readAll(file), nullptr, false);
  if (!json.is_object()) return std::nullopt;
  const auto text = [&](const char* key) {
    return json.contains(key) && json[key].is_string() ? json[key].get<std::string>() : std::string();
  };
  return Owner{text("host"), text("user"), Moment::fromIso(text("since")).value_or(Moment{}),
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

std::variant<std::unique_ptr<OwnerMark>, Owner> OwnerMark::take(const std::string& bookPath, bool takeOver) {
  const auto path = bookPath + ".owner";
  const auto now = Moment::now();
  const Owner me{hostName(), userName(), now, now};
  const int file = ::open(path.c_str(), O_RDWR | O_CREAT | O_CLOEXEC, 0666);
  if (file < 0) return Owner{"", "", now, now}; // no right to write here: nobody is named
  const auto found = ownerIn(file);
  const bool locked = ::flock(file, LOCK_EX | LOCK_NB) == 0;
  const bool elsewhere = found && !found->host.empty() && found->host != me.host;
  const bool silent = found && now.seconds - found->heard.seconds > silentSeconds;
  if (locked && !stillThere(file, path)) {
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

bool OwnerMark::beat() {
  const auto found = ownerIn(m_file);
  if (found && (found->host != m_me.host || found->since != m_me.since)) return false;
  m_me.heard = Moment::now();
  return write();
}

} // namespace butte::book
