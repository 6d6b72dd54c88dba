/** Moves what nobody uses any more to cold stores. */
@NullMarked
package org.vastshelf.app.tier;

import org.jspecify.annotations.NullMarked;
