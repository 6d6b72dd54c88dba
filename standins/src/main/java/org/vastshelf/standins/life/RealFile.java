package org.vastshelf.standins.life;

import java.time.LocalDate;

/** A file of the demo of which every byte is as a program would have written it. */
public record RealFile(String share, String path, byte[] bytes, String owner, LocalDate day) {}
