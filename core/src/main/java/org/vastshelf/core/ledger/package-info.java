@NullMarked
package org.vastshelf.core.ledger;

import org.jspecify.annotations.NullMarked;
