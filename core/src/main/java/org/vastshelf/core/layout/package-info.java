@NullMarked
package org.vastshelf.core.layout;

import org.jspecify.annotations.NullMarked;
