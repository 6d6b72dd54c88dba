@NullMarked
package org.vastshelf.core.forecast;

import org.jspecify.annotations.NullMarked;
