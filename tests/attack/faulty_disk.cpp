// A disk that fails, put before a program with LD_PRELOAD. Calls that change a file below BUTTE_FAULT_FOLDER
// are counted; at number BUTTE_FAULT_AT the fault of BUTTE_FAULT_KIND happens:
//   short    half of it is written, and said
//   enospc   no room; EIO for what pushes to the disk
//   eio      the disk does not answer
//   cut      half of it is written and the power goes: what was written and not pushed to the disk is gone
//   lie      from here on what pushes to the disk does nothing and says it did; BUTTE_FAULT_CUT calls later
//   the power goes
// At its end the program's calls are written to BUTTE_FAULT_COUNT, so that a test knows how many places there
// are.
#include <cerrno>
#include <climits>
#include <csignal>
#include <cstdio>
#include <cstdlib>
#include <cstring>
#include <dlfcn.h>
#include <fcntl.h>
#include <map>
#include <mutex>
#include <string>
#include <sys/stat.h>
#include <unistd.h>
#include <vector>

namespace {

template <class Function> Function* real(const char* name) {
  return reinterpret_cast<Function*>(::dlsym(RTLD_NEXT, name));
}

const auto realPwrite = real<ssize_t(int, const void*, size_t, off64_t)>("pwrite64");
const auto realWrite = real<ssize_t(int, const void*, size_t)>("write");
const auto realTruncate = real<int(int, off64_t)>("ftruncate64");
const auto realSync = real<int(int)>("fsync");
const auto realDataSync = real<int(int)>("fdatasync");
const auto realRename = real<int(const char*, const char*)>("rename");
const auto realUnlink = real<int(const char*)>("unlink");

/// What stood at a place before it was written and not yet pushed to the disk.
struct Before {
  std::string path;
  off64_t at = 0, size = 0;
  std::vector<char> bytes;
};

struct Disk {
  std::recursive_mutex mutex;
  std::string folder, kind, count;
  long at = 0, cut = 0, calls = 0;
  bool lying = false;
  std::vector<Before> unsynced;

  Disk() {
    const auto text = [](const char* name) {
      return std::string(std::getenv(name) ? std::getenv(name) : "");
    };
    folder = text("BUTTE_FAULT_FOLDER");
    kind = text("BUTTE_FAULT_KIND");
    count = text("BUTTE_FAULT_COUNT");
    at = std::atol(text("BUTTE_FAULT_AT").c_str());
    cut = std::atol(text("BUTTE_FAULT_CUT").c_str());
  }
  ~Disk() {
    if (count.empty()) return;
    if (auto* file = std::fopen(count.c_str(), "w")) {
      std::fprintf(file, "%ld\n", calls);
      std::fclose(file);
    }
  }
};

Disk& disk() {
  static Disk one;
  return one;
}

std::string pathOf(int file) {
  char path[PATH_MAX], link[64];
  std::snprintf(link, sizeof link, "/proc/self/fd/%d", file);
  const auto length = ::readlink(link, path, sizeof path);
  return length > 0 ? std::string(path, static_cast<size_t>(length)) : std::string();
}

bool isOurs(const std::string& path) {
  return !disk().folder.empty() && path.starts_with(disk().folder) && !path.ends_with("-shm");
}

void remember(int file, const std::string& path, off64_t at, size_t length) {
  struct stat64 about {};
  if (::fstat64(file, &about) != 0) return;
  Before before{path, at, about.st_size, std::vector<char>(length)};
  const int reader = ::open64(path.c_str(), O_RDONLY | O_CLOEXEC);
  const auto got = reader < 0 ? 0 : ::pread64(reader, before.bytes.data(), length, at);
  if (reader >= 0) ::close(reader);
  before.bytes.resize(static_cast<size_t>(got > 0 ? got : 0));
  disk().unsynced.push_back(std::move(before));
}

void pushed(const std::string& path) {
  std::erase_if(disk().unsynced, [&](const Before& one) { return one.path == path; });
}

/// The power goes: what the disk never got is not there.
[[noreturn]] void goDark() {
  auto& all = disk().unsynced;
  for (auto one = all.rbegin(); one != all.rend(); ++one) {
    const int file = ::open64(one->path.c_str(), O_WRONLY | O_CLOEXEC);
    if (file < 0) continue;
    if (realPwrite(file, one->bytes.data(), one->bytes.size(), one->at) < 0) std::perror("faulty disk");
    if (realTruncate(file, one->size) != 0) std::perror("faulty disk");
    ::close(file);
  }
  ::kill(::getpid(), SIGKILL);
  std::abort();
}

/// Counts a call; whether the fault is to happen in it.
bool turn() {
  auto& d = disk();
  ++d.calls;
  if (d.kind == "lie") {
    if (d.calls == d.at) d.lying = true;
    if (d.lying && d.calls == d.at + d.cut) goDark();
    return false;
  }
  return d.calls == d.at;
}

int failed(int error) {
  errno = error;
  return -1;
}

/// The fault in a call that writes: gives what the call answers.
template <class Write> ssize_t faultyWrite(size_t length, const Write& write) {
  const auto& kind = disk().kind;
  if (kind == "short") return write(length / 2);
  if (kind == "cut") {
    if (write(length / 2) < 0) std::perror("faulty disk");
    goDark();
  }
  return failed(kind == "enospc" ? ENOSPC : EIO);
}

int faultyCall() {
  if (disk().kind == "cut") goDark();
  return failed(disk().kind == "enospc" ? ENOSPC : EIO);
}

template <class Call> int push(int file, const Call& call) {
  const auto path = pathOf(file);
  if (!isOurs(path)) return call(file);
  const std::scoped_lock lock(disk().mutex);
  if (turn()) return disk().kind == "cut" ? faultyCall() : failed(EIO);
  if (disk().lying) return 0;
  const int answer = call(file);
  if (answer == 0) pushed(path);
  return answer;
}

} // namespace

extern "C" {

ssize_t pwrite64(int file, const void* bytes, size_t length, off64_t at) {
  const auto path = pathOf(file);
  if (!isOurs(path)) return realPwrite(file, bytes, length, at);
  const std::scoped_lock lock(disk().mutex);
  remember(file, path, at, length);
  const auto write = [&](size_t part) { return realPwrite(file, bytes, part, at); };
  return turn() ? faultyWrite(length, write) : write(length);
}

ssize_t pwrite(int file, const void* bytes, size_t length, off_t at) {
  return pwrite64(file, bytes, length, at);
}

ssize_t write(int file, const void* bytes, size_t length) {
  const auto path = pathOf(file);
  if (!isOurs(path)) return realWrite(file, bytes, length);
  const std::scoped_lock lock(disk().mutex);
  remember(file, path, ::lseek64(file, 0, SEEK_CUR), length);
  const auto part = [&](size_t some) { return realWrite(file, bytes, some); };
  return turn() ? faultyWrite(length, part) : part(length);
}

int ftruncate64(int file, off64_t size) {
  const auto path = pathOf(file);
  if (!isOurs(path)) return realTruncate(file, size);
  const std::scoped_lock lock(disk().mutex);
  struct stat64 about {};
  if (::fstat64(file, &about) == 0 && about.st_size > size)
    remember(file, path, size, static_cast<size_t>(about.st_size - size));
  return turn() ? faultyCall() : realTruncate(file, size);
}

int ftruncate(int file, off_t size) {
  return ftruncate64(file, size);
}

int fsync(int file) {
  return push(file, realSync);
}

int fdatasync(int file) {
  return push(file, realDataSync);
}

int rename(const char* from, const char* to) {
  if (!isOurs(from) && !isOurs(to)) return realRename(from, to);
  const std::scoped_lock lock(disk().mutex);
  if (turn()) return faultyCall();
  for (auto& one : disk().unsynced)
    if (one.path == from) one.path = to;
  return realRename(from, to);
}

int unlink(const char* path) {
  if (!isOurs(path)) return realUnlink(path);
  const std::scoped_lock lock(disk().mutex);
  if (turn()) return faultyCall();
  pushed(path);
  return realUnlink(path);
}
}
