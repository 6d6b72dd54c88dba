@NullMarked
package org.vastshelf.core.invariant;

import org.jspecify.annotations.NullMarked;
