package org.vastshelf.core.invariant;

/**
 * Something about an estate that must not be.
 *
 * @param key the same for the same thing wrong, whatever the figures
 */
public record Violation(String key, String text) {}
