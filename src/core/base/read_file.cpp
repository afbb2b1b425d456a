#include "base/read_file.h"

#include <array>
#include <fcntl.h>
#include <istream>
#include <sys/stat.h>
#include <unistd.h>

namespace butte::core {
namespace {

constexpr std::size_t megabyte = 1u << 20;

class OpenFile {
public:
  /// O_NONBLOCK: a pipe that nobody writes to must not hold the program.
  explicit OpenFile(const std::string& path)
      : m_handle(::open(path.c_str(), O_RDONLY | O_CLOEXEC | O_NONBLOCK | O_NOCTTY)) {}
  ~OpenFile() {
    if (m_handle >= 0) ::close(m_handle);
  }
  OpenFile(const OpenFile&) = delete;
  OpenFile& operator=(const OpenFile&) = delete;
  int handle() const { return m_handle; }

private:
  int m_handle;
};

Problem bad(const std::string& what, const std::string& why) {
  return problemAt(ProblemCode::BadFile, "FILE", {"'" + what + "' " + why});
}

Problem tooLarge(const std::string& what, std::size_t mostBytes) {
  return bad(what, "is larger than " + std::to_string(mostBytes / megabyte) + " MB");
}

} // namespace

Result<std::string> readWholeFile(const std::string& path, std::size_t mostBytes) {
  const OpenFile file(path);
  struct stat about {};
  if (file.handle() < 0 || ::fstat(file.handle(), &about) != 0) return bad(path, "can't be read");
  if (!S_ISREG(about.st_mode))
    return bad(path, S_ISDIR(about.st_mode) ? "is a folder" : "is no file but a device or a pipe");
  if (static_cast<std::size_t>(about.st_size) > mostBytes) return tooLarge(path, mostBytes);
  std::string text;
  text.reserve(static_cast<std::size_t>(about.st_size));
  std::array<char, 1 << 16> buffer{};
  ssize_t got = 0;
  while ((got = ::read(file.handle(), buffer.data(), buffer.size())) > 0) {
    text.append(buffer.data(), static_cast<std::size_t>(got));
    if (text.size() > mostBytes) return tooLarge(path, mostBytes); // it grew meanwhile
  }
  if (got < 0) return bad(path, "can't be read");
  return text;
}

Result<std::string> readWholeStream(std::istream& in, std::size_t mostBytes) {
  std::string text;
  std::array<char, 1 << 16> buffer{};
  while (in.read(buffer.data(), static_cast<std::streamsize>(buffer.size())) || in.gcount() > 0) {
    text.append(buffer.data(), static_cast<std::size_t>(in.gcount()));
    if (text.size() > mostBytes) return tooLarge("-", mostBytes);
  }
  return text;
}

} // namespace butte::core
