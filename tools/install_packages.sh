# Debian packages that Butte needs, and a function that installs those that are missing. Sourced by ./run and ./test.

build_packages="g++ cmake ninja-build ccache mold git libeigen3-dev libglpk-dev libfmt-dev nlohmann-json3-dev libcli11-dev
  qt6-base-dev libqt6sql6-sqlite qt6-serialport-dev qt6-serialbus-dev libmosquitto-dev libcanberra-dev libical-dev pkg-config libpoppler-qt6-dev libtesseract-dev tesseract-ocr-eng tesseract-ocr-deu
  tesseract-ocr-nld tesseract-ocr-fra tesseract-ocr-spa tesseract-ocr-ita"
bench_packages="libbenchmark-dev"
test_packages="libgtest-dev libgmock-dev clang-format python3 python3-scipy openbabel units poppler-utils mosquitto
  python3-icalendar python3-dateutil"

# install_missing LIST... : each LIST is the name of a variable above.
install_missing() {
  local missing=() package
  for list in "$@"; do
    for package in ${!list}; do
      if [ "$(dpkg-query -W -f '${db:Status-Status}' "$package" 2>/dev/null)" != installed ]; then
        missing+=("$package")
      fi
    done
  done
  [ ${#missing[@]} -eq 0 ] && return 0
  local root=()
  if [ "$(id -u)" -ne 0 ]; then
    command -v sudo >/dev/null || { echo "Installing needs root or sudo: ${missing[*]}" >&2; return 1; }
    root=(sudo)
  fi
  echo "Installing: ${missing[*]}"
  "${root[@]}" apt-get update -qq
  "${root[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
}
