/** Snapshots: taken, read, brought back from and deleted. */
@NullMarked
package org.vastshelf.app.snapshot;

import org.jspecify.annotations.NullMarked;
