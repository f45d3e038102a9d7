# The linter reads the code as it stands: another compiler's precompiled headers mean nothing to it.
file(READ ${BUILD}/compile_commands.json commands)
string(REGEX REPLACE "-Winvalid-pch -include [^ \"]*cmake_pch[^ \"]*" "" commands "${commands}")
file(WRITE ${BUILD}/lint/compile_commands.json "${commands}")
execute_process(COMMAND ${RUN_CLANG_TIDY} -p ${BUILD}/lint -quiet -j 2 "^(?!.*(/tests/|cmake_pch)).*/(core|twin|cli)/"
  RESULT_VARIABLE result OUTPUT_VARIABLE words ERROR_VARIABLE more)
if(NOT result EQUAL 0)
  message(FATAL_ERROR "the linter has something to say:\n${words}\n${more}")
endif()
