package org.vastshelf.standins.scenario;

import java.util.List;

/** A folder with its files, in full; folders come before what lies in them. */
public record DemoFolder(String path, List<DemoFile> files) {}
