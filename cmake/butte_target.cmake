# Warnings are errors for our own code only; third-party headers come in as SYSTEM.
function(butte_target name)
  target_compile_options(${name} PRIVATE -Wall -Wextra -Wpedantic -Wshadow -Wconversion -Wno-sign-conversion -Werror
    $<$<CXX_COMPILER_ID:GNU>:-Wno-restrict>) # g++ 12 invents overlaps in std::string operator+ at -O3 (GCC bug 105651)
  if(BUTTE_SANITIZE)
    target_compile_options(${name} PRIVATE -fsanitize=address,undefined -fno-omit-frame-pointer -fno-sanitize-recover=undefined)
    target_link_options(${name} PRIVATE -fsanitize=address,undefined)
    # Eigen unoptimised makes every solve a hundred times slower; -O1 keeps the tests quick and the traces readable.
    target_compile_options(${name} PRIVATE -O1)
  endif()
endfunction()

# The core must stay free of Qt: refuse at configure time, not in review.
function(butte_refuse_qt name)
  get_target_property(libraries ${name} LINK_LIBRARIES)
  if(libraries MATCHES "Qt")
    message(FATAL_ERROR "${name} must not link Qt, but it links: ${libraries}")
  endif()
endfunction()
