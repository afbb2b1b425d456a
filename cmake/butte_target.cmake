# How every target of ours is compiled. butte_target(NAME [WINDOW] [SOLVER] [PRECOMPILED header...])
#   WINDOW       widgets and their tests: instrumented only when all is (BUTTE_SANITIZE=all). Instrumenting them costs a
#                third of the build and what they call is instrumented already; the library's own checks stay on.
#   SOLVER       optimised a little in debug builds too (Eigen unoptimised makes every solve a hundred times slower), and
#                all the way in a release.
#   PRECOMPILED  what nearly every file of the target includes.
function(butte_target name)
  cmake_parse_arguments(ARG "WINDOW;SOLVER" "" "PRECOMPILED" ${ARGN})
  # Warnings are errors for our own code only; third-party headers come in as SYSTEM.
  target_compile_options(${name} PRIVATE -Wall -Wextra -Wpedantic -Wshadow -Wconversion -Wno-sign-conversion -Werror
    # g++ 12 invents overlaps in std::string operator+ (GCC bug 105651) and takes optionals and records in braces for
    # uninitialised (105562); the sanitizers and tests watch instead.
    $<$<CXX_COMPILER_ID:GNU>:-Wno-restrict -Wno-maybe-uninitialized>)
  if(CMAKE_UNITY_BUILD) # names of one file seen beside those of another: the plain build says what is meant
    target_compile_options(${name} PRIVATE -Wno-shadow -Wno-subobject-linkage
      $<$<CXX_COMPILER_ID:GNU>:-Wno-array-bounds -Wno-stringop-overflow -Wno-stringop-overread>) # the same invented overlaps (GCC bug 105651)
  endif()
  if(BUTTE_SANITIZE AND (NOT ARG_WINDOW OR BUTTE_SANITIZE STREQUAL "all"))
    target_compile_options(${name} PRIVATE -fsanitize=address,undefined -fno-omit-frame-pointer -fno-sanitize-recover=undefined)
    # These four stand at every pointer of every template and double the time a compiler takes; what they see, the address
    # sanitizer mostly sees too. All of them with BUTTE_SANITIZE=all.
    if(NOT BUTTE_SANITIZE STREQUAL "all")
      target_compile_options(${name} PRIVATE -fno-sanitize=null,alignment,object-size,pointer-overflow)
    endif()
  elseif(BUTTE_SANITIZE)
    target_compile_definitions(${name} PRIVATE _GLIBCXX_ASSERTIONS)
  endif()
  if(BUTTE_SANITIZE AND ARG_SOLVER)
    target_compile_options(${name} PRIVATE -O1)
  endif()
  if(ARG_SOLVER AND CMAKE_BUILD_TYPE STREQUAL "Release")
    target_compile_options(${name} PRIVATE -O3)
  endif()
  if(BUTTE_SANITIZE)
    target_link_options(${name} PRIVATE -fsanitize=address,undefined)
  endif()
  if(BUTTE_MOLD)
    target_link_options(${name} PRIVATE -fuse-ld=mold)
  endif()
  if(ARG_PRECOMPILED AND BUTTE_PRECOMPILE)
    target_precompile_headers(${name} PRIVATE ${ARG_PRECOMPILED})
    # Lets ccache see into a precompiled header.
    target_compile_options(${name} PRIVATE $<$<CXX_COMPILER_ID:GNU>:-fpch-preprocess>)
  endif()
endfunction()

# What most files read of the standard library.
set(butte_std_headers <algorithm> <array> <cmath> <functional> <map> <memory> <optional> <set> <string> <string_view>
  <utility> <variant> <vector>)

# The core must stay free of Qt: refuse at configure time, not in review.
function(butte_refuse_qt name)
  get_target_property(libraries ${name} LINK_LIBRARIES)
  if(libraries MATCHES "Qt")
    message(FATAL_ERROR "${name} must not link Qt, but it links: ${libraries}")
  endif()
endfunction()
