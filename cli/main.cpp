#include "run.h"

int main(int argc, char** argv) { return rigging::cli::run(argc, argv); }
