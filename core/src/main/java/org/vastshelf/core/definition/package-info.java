@NullMarked
package org.vastshelf.core.definition;

import org.jspecify.annotations.NullMarked;
