@NullMarked
package org.vastshelf.core.catalogue;

import org.jspecify.annotations.NullMarked;
