@NullMarked
package org.vastshelf.core.audit;

import org.jspecify.annotations.NullMarked;
