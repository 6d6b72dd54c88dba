/** Which files leave for a cold store, and which stay. */
@NullMarked
package org.vastshelf.core.tier;

import org.jspecify.annotations.NullMarked;
