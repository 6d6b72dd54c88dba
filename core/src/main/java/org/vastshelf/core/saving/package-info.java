/** What deduplication would spare: cutting bytes into chunks, telling equal ones, counting. */
@NullMarked
package org.vastshelf.core.saving;

import org.jspecify.annotations.NullMarked;
