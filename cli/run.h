#pragma once

namespace rigging::cli {

/// Carries out one command line; the exit status (docs/command-line.md).
int run(int argc, const char* const* argv);

}  // namespace rigging::cli
