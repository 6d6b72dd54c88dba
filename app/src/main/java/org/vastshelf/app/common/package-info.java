/** Units that files of a volume have in common, or that are packed: what uses them, and what they take. */
@NullMarked
package org.vastshelf.app.common;

import org.jspecify.annotations.NullMarked;
