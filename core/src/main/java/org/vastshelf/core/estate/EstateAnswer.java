package org.vastshelf.core.estate;

/** The answer to a wish to change the estate: what it is afterwards, or why it stays as it is. */
public sealed interface EstateAnswer {

    /** The estate as it is after the change. */
    record Changed(Estate estate) implements EstateAnswer {}

    /** Nothing was changed. */
    record Refused(String because) implements EstateAnswer {}
}
