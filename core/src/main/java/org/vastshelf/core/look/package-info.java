@NullMarked
package org.vastshelf.core.look;

import org.jspecify.annotations.NullMarked;
