package org.vastshelf.core.estate;

/** Which client addresses may read, or read and write, over NFS. */
public record ExportRule(Cidr clients, boolean mayWrite) {}
