package org.vastshelf.core.estate;

/** A place: a building or a cloud region. */
public record Site(String name, String title) {}
