@NullMarked
package org.vastshelf.core.estate;

import org.jspecify.annotations.NullMarked;
