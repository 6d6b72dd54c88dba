@NullMarked
package org.vastshelf.core.agenda;

import org.jspecify.annotations.NullMarked;
