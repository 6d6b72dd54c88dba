/** Snapshots: what they hold, which of them a schedule keeps, and how to read them. */
@NullMarked
package org.vastshelf.core.snapshot;

import org.jspecify.annotations.NullMarked;
