/** Measures what deduplication would spare, on real bytes. */
@NullMarked
package org.vastshelf.app.saving;

import org.jspecify.annotations.NullMarked;
