/** Replica pairs: sending what changed, taking over, and going back. */
@NullMarked
package org.vastshelf.app.replica;

import org.jspecify.annotations.NullMarked;
