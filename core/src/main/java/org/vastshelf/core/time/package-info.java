@NullMarked
package org.vastshelf.core.time;

import org.jspecify.annotations.NullMarked;
