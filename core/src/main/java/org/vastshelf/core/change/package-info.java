@NullMarked
package org.vastshelf.core.change;

import org.jspecify.annotations.NullMarked;
