@NullMarked
package org.vastshelf.core.unit;

import org.jspecify.annotations.NullMarked;
