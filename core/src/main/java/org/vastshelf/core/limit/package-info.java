@NullMarked
package org.vastshelf.core.limit;

import org.jspecify.annotations.NullMarked;
