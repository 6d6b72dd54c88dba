/** Copies of volumes elsewhere: what a link can bear, and what is lost when the source is. */
@NullMarked
package org.vastshelf.core.replica;

import org.jspecify.annotations.NullMarked;
