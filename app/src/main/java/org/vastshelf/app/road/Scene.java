package org.vastshelf.app.road;

import java.time.Instant;
import java.util.Optional;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.gate.GateView;
import org.vastshelf.core.unit.Bytes;

/** Who acts where, under which rules, and when. */
record Scene(RuleBook book, Share share, Volume volume, Person person, Instant now) {

    Owner owner() {
        return Owner.of(person);
    }

    GateView view(GateView.Retention retention, GateView.Limits limits, Bytes room, GateView.Arriving arriving) {
        return new GateView(
                book.reach(share),
                new GateView.Access(share, person),
                retention,
                limits,
                new GateView.Space(volume, room, Optional.empty(), arriving));
    }
}
