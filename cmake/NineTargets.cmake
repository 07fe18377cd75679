# How every target of this project is built: warnings are errors for our own code,
# ccache and mold are used where they are installed.
find_program(NINE_CCACHE ccache)
if(NINE_CCACHE)
  # What was compiled in one folder serves in any other.
  set(CMAKE_CXX_COMPILER_LAUNCHER ${CMAKE_COMMAND} -E env CCACHE_BASEDIR=${PROJECT_SOURCE_DIR} CCACHE_NOHASHDIR=1
      ${NINE_CCACHE})
endif()
find_program(NINE_MOLD mold)
if(NINE_MOLD)
  add_link_options(-fuse-ld=mold)
endif()

add_library(nine_flags INTERFACE)
target_compile_options(nine_flags INTERFACE -Wall -Wextra -Wpedantic -Wshadow -Werror)
if(CMAKE_CXX_COMPILER_ID STREQUAL "GNU" AND CMAKE_CXX_COMPILER_VERSION VERSION_LESS 13)
  # GCC 12 sees overlapping copies in std::string's operator+ that are not there (its bug 105651),
  # and unset values in copies of a std::variant.
  target_compile_options(nine_flags INTERFACE -Wno-restrict -Wno-maybe-uninitialized)
endif()
if(NINE_FUZZ)
  # Everything is told where it goes and watched for bad accesses; warnings are the other compiler's business.
  add_compile_options(-fsanitize=fuzzer-no-link,address,undefined -fno-sanitize-recover=all -Wno-error -Wno-everything)
  add_link_options(-fsanitize=address,undefined)
endif()
if(NINE_SANITIZE)
  # With instrumented code GCC can no longer tell and warns of what is set (its manual says so).
  target_compile_options(nine_flags INTERFACE -Wno-maybe-uninitialized)
  # Global, so that libraries compiled from headers are instrumented too.
  set(NINE_SANITIZERS -fsanitize=address)
  if(NINE_SANITIZE_UNDEFINED)
    # Null, misaligned and wrongly sized accesses are what the address sanitizer finds anyway.
    list(APPEND NINE_SANITIZERS -fsanitize=undefined -fno-sanitize=null,alignment,object-size,vptr)
  endif()
  add_compile_options(${NINE_SANITIZERS} -fno-sanitize-recover=all -fno-omit-frame-pointer)
  add_compile_definitions(NINE_SANITIZED)
  add_link_options(${NINE_SANITIZERS})
endif()

# nine_room(NAME SOURCES ... ROOMS ... LIBRARIES ... PRIVATE ...)
# One static library per room of src/core. ROOMS are the rooms below it.
function(nine_room name)
  cmake_parse_arguments(ARG "" "" "SOURCES;ROOMS;LIBRARIES;PRIVATE" ${ARGN})
  add_library(nine_${name} STATIC ${ARG_SOURCES})
  target_include_directories(nine_${name} PUBLIC ${PROJECT_SOURCE_DIR}/src/core)
  list(TRANSFORM ARG_ROOMS PREPEND nine_)
  target_link_libraries(nine_${name} PUBLIC ${ARG_ROOMS} ${ARG_LIBRARIES} PRIVATE nine_flags ${ARG_PRIVATE})
endfunction()
