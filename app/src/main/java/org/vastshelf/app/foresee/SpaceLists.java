package org.vastshelf.app.foresee;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Map.Entry;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.vastshelf.app.foresee.Forecasts.Space;
import org.vastshelf.app.kit.Scope;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Share;

/** The spaces that somebody may see in a scope, those that are full first coming first. */
@Component
class SpaceLists {

    private static final Comparator<Space> LIKELY =
            Comparator.comparing(s -> s.forecast().likely().orElse(LocalDate.MAX));

    private final Forecasts forecasts;
    private final AccountForecastStore accounts;

    SpaceLists(Forecasts forecasts, AccountForecastStore accounts) {
        this.forecasts = forecasts;
        this.accounts = accounts;
    }

    /**
     * A space with its name, before it is written down.
     *
     * @param limit that is full first there; null for none
     * @param share on which somebody may be refused; empty where that is not asked
     */
    record Named(SpaceName name, Space space, @Nullable Entry<String, LocalDate> limit, String share) {}

    List<Named> spaces(Someone me, Estate estate, Scope scope) {
        List<Space> spaces = new ArrayList<>(forecasts.volumes().values());
        spaces.addAll(forecasts.pools().values());
        if (scope.isEstate()) {
            spaces.addAll(forecasts.servers().values());
            forecasts.whole().ifPresent(spaces::add);
        }
        return spaces.stream()
                .filter(s -> sees(me, estate, s.kind(), s.name()) && inScope(scope, estate, s))
                .sorted(LIKELY)
                .map(s -> new Named(SpaceName.of(s.kind(), s.name()), s, null, ""))
                .toList();
    }

    /** A share grows as its volume does; what refuses first may be a limit on it, or the pool. */
    List<Named> shares(Someone me, Estate estate, Scope scope) {
        Map<String, Space> volumes = forecasts.volumes();
        Map<String, AccountForecastStore.Expected> first = accounts.first(estate);
        return estate.shares().values().stream()
                .filter(share -> (me.readsAll() || me.sees(share))
                        && volumes.containsKey(share.volume())
                        && scope.covers(estate, estate.volumes().get(share.volume())))
                .map(share -> new Named(
                        new SpaceName(HistoryStore.VOLUME, share.volume(), share.name()),
                        volumes.get(share.volume()),
                        Optional.ofNullable(first.get(share.name()))
                                .map(SpaceLists::limit)
                                .orElse(null),
                        share.name()))
                .sorted(Comparator.comparing(Named::space, LIKELY))
                .toList();
    }

    private static Entry<String, LocalDate> limit(AccountForecastStore.Expected expected) {
        return Map.entry(
                expected.account().title(), expected.space().forecast().likely().orElseThrow());
    }

    List<Named> accounts(Someone me, Estate estate, Scope scope) {
        List<String> shares = estate.shares().values().stream()
                .filter(share -> (me.readsAll() || me.sees(share))
                        && scope.covers(estate, estate.volumes().get(share.volume())))
                .map(Share::name)
                .toList();
        return accounts.all(estate, shares).stream()
                .map(e -> new Named(
                        new SpaceName(
                                HistoryStore.ACCOUNT,
                                e.space().name(),
                                e.account().title()),
                        e.space(),
                        e.refuses() && e.space().forecast().likely().isPresent() ? limit(e) : null,
                        e.account().rule().share()))
                .toList();
    }

    private static boolean inScope(Scope scope, Estate estate, Space space) {
        return switch (space.kind()) {
            case HistoryStore.POOL ->
                scope.volume().isEmpty() && scope.covers(estate.pools().get(space.name()));
            case HistoryStore.VOLUME -> scope.covers(estate, estate.volumes().get(space.name()));
            default -> true;
        };
    }

    private static boolean sees(Someone me, Estate estate, String kind, String name) {
        return me.readsAll()
                || kind.equals(HistoryStore.VOLUME) && estate.sharesOn(name).anyMatch(me::sees);
    }
}
