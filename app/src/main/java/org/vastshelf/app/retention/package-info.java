/** Retention rules and legal tags: what they hold, how rules are sealed, and how tags go on and come off. */
@NullMarked
package org.vastshelf.app.retention;

import org.jspecify.annotations.NullMarked;
