/** Cold stores: how they are reached, what signs requests to them, and whether they do what they should. */
@NullMarked
package org.vastshelf.app.cold;

import org.jspecify.annotations.NullMarked;
