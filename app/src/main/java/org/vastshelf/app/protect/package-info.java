/** What would be lost of each share, and what is wanted of it. */
@NullMarked
package org.vastshelf.app.protect;

import org.jspecify.annotations.NullMarked;
