@NullMarked
package org.vastshelf.core.failure;

import org.jspecify.annotations.NullMarked;
