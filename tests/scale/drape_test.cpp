#include "scale/drape.h"
