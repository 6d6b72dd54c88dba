/** What could be spared, and what that is worth. */
@NullMarked
package org.vastshelf.app.spare;

import org.jspecify.annotations.NullMarked;
