/** When more room has to be ordered, and how much: what follows from forecasts for those who buy. */
@org.jspecify.annotations.NullMarked
package org.vastshelf.app.ahead;
