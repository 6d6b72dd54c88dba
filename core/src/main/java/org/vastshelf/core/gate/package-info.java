@NullMarked
package org.vastshelf.core.gate;

import org.jspecify.annotations.NullMarked;
