package org.vastshelf.app.road;

import java.time.Instant;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.gate.GateView;

/** A save or a removal that the gate let pass. */
record Change(
        FileOperation operation,
        Person person,
        GateView view,
        Optional<RoadStore.Found> found,
        @Nullable Long content,
        Instant now) {

    /** The file as it will be. */
    FileRow row(Volume volume) {
        String name = operation.path().name();
        long seconds = now.getEpochSecond();
        return new FileRow(
                PathBytes.of(name),
                operation.bytes().value(),
                volume.allocated(operation.bytes()).value(),
                person.uid(),
                person.fileGroup(),
                seconds,
                seconds,
                seconds,
                FileKind.of(name));
    }
}
