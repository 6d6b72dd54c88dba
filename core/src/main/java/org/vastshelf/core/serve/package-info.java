@NullMarked
package org.vastshelf.core.serve;

import org.jspecify.annotations.NullMarked;
