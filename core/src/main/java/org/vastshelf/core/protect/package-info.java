/** What is left of a share after a mishap. */
@NullMarked
package org.vastshelf.core.protect;

import org.jspecify.annotations.NullMarked;
