@NullMarked
package org.vastshelf.core.content;

import org.jspecify.annotations.NullMarked;
