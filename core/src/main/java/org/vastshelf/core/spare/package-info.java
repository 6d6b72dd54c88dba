/** What of what shares hold could be spared, and what that would be worth. */
@NullMarked
package org.vastshelf.core.spare;

import org.jspecify.annotations.NullMarked;
