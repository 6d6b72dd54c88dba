@NullMarked
package org.vastshelf.core.volume;

import org.jspecify.annotations.NullMarked;
