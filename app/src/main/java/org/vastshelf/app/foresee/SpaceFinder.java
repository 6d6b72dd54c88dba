package org.vastshelf.app.foresee;

import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.vastshelf.app.foresee.ForecastStore.Key;
import org.vastshelf.app.foresee.Forecasts.Space;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.forecast.History;
import org.vastshelf.core.forecast.History.DayUse;
import org.vastshelf.core.limit.Account;

/** Finds a space by its address, for who may see it: readers all, keepers the volumes and accounts of their shares. */
@Component
public class SpaceFinder {

    private static final String HASHES = "[0-9a-f]{64}";

    private final EstateStore estates;
    private final Forecasts forecasts;
    private final AccountForecastStore accounts;
    private final AccountHistoryStore accountHistories;
    private final Spaces spaces;

    SpaceFinder(
            EstateStore estates,
            Forecasts forecasts,
            AccountForecastStore accounts,
            AccountHistoryStore accountHistories,
            Spaces spaces) {
        this.estates = estates;
        this.forecasts = forecasts;
        this.accounts = accounts;
        this.accountHistories = accountHistories;
        this.spaces = spaces;
    }

    /** A space with its past, oldest first. */
    public record Found(SpaceName name, Space space, List<DayUse> history) {

        /** Whether it is one of those that add up, of which more can be supposed and brought in. */
        boolean isAddedUp() {
            return !space.kind().equals(HistoryStore.ACCOUNT);
        }
    }

    /** @throws NotFound also where this person must not know of it */
    public Found find(Someone me, String kind, String key) {
        Estate estate = estates.load();
        Optional<Found> found = kind.equals(HistoryStore.ACCOUNT)
                ? account(me, estate, key)
                : forecasts
                        .of(kind, SpaceName.stored(kind, key))
                        .filter(space -> me.readsAll()
                                || kind.equals(HistoryStore.VOLUME)
                                        && estate.sharesOn(key).anyMatch(me::sees))
                        .map(space -> new Found(
                                SpaceName.of(kind, space.name()),
                                space,
                                days(spaces.history(estate, new Key(kind, space.name())))));
        return found.orElseThrow(() -> new NotFound(kind + " with a week of history", key));
    }

    private Optional<Found> account(Someone me, Estate estate, String key) {
        Optional<Account> account = key.matches(HASHES) ? accounts.account(estate, key) : Optional.empty();
        return account.filter(a -> me.readsAll()
                        || Optional.ofNullable(estate.shares().get(a.rule().share()))
                                .filter(me::sees)
                                .isPresent())
                .flatMap(a -> forecasts
                        .of(HistoryStore.ACCOUNT, key)
                        .map(space -> new Found(
                                new SpaceName(HistoryStore.ACCOUNT, key, a.title()),
                                space,
                                days(accountHistories.of(key)))));
    }

    private static List<DayUse> days(Optional<History> history) {
        return history.map(h -> h.lastDays(History.MOST_DAYS)).orElse(List.of());
    }
}
