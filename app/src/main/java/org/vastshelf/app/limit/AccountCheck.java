package org.vastshelf.app.limit;

import static org.vastshelf.app.store.generated.Tables.ACCOUNT;
import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;
import static org.vastshelf.app.store.generated.Tables.VOLUME_USAGE;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.agenda.DueWork;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.notify.Notices;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.agenda.DueKind;
import org.vastshelf.core.estate.Apart;
import org.vastshelf.core.estate.EstateAnswer;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.estate.Share;

/** Looks every night whether what accounts and volumes are said to hold is what the catalogue holds. */
@Component
public class AccountCheck implements DueWork {

    private static final Field<Long> COUNTED = DSL.coalesce(FOLDER.SUM_BYTES, 0L);

    private final DSLContext db;
    private final AccountStore accounts;
    private final EstateStore estates;
    private final Notices notices;

    AccountCheck(DSLContext db, AccountStore accounts, EstateStore estates, Notices notices) {
        this.db = db;
        this.accounts = accounts;
        this.estates = estates;
        this.notices = notices;
    }

    /** A figure that did not agree, and was mended. */
    public record Drift(String what, long said, long counted) {
        String text() {
            return "%s was said to hold %,d bytes, the catalogue has %,d".formatted(what, said, counted);
        }
    }

    @Override
    public DueKind kind() {
        return DueKind.CHECK;
    }

    @Override
    public void act(String everything, Instant midnight) {
        mend(midnight);
    }

    /** Mends what drifted, tells of it, and says what it was. Nobody saves meanwhile. */
    public List<Drift> mend(Instant now) {
        List<Drift> drifts = new ArrayList<>();
        estates.change((estate, held) -> {
            drifts.clear();
            drifts.addAll(folders());
            estate.limits().values().stream()
                    .filter(rule -> rule.apart() != Apart.NOBODY)
                    .forEach(rule -> drifts.addAll(owners(rule)));
            estate.shares().values().forEach(share -> volume(share).ifPresent(drifts::add));
            return new EstateAnswer.Changed(estate);
        });
        if (!drifts.isEmpty()) {
            notices.tellAdministrators(
                    now,
                    drifts.size() + " figures had drifted and were mended",
                    String.join(". ", drifts.stream().map(Drift::text).toList()) + ".");
        }
        return drifts;
    }

    private List<Drift> owners(LimitRule rule) {
        List<Drift> drifts = new ArrayList<>();
        Map<String, Long> counted = new HashMap<>(accounts.owned(rule));
        Map<String, Long> saidBy = accounts.said(rule);
        saidBy.keySet().forEach(owner -> counted.putIfAbsent(owner, 0L));
        counted.forEach((owner, bytes) -> {
            long said = saidBy.getOrDefault(owner, 0L);
            if (said != bytes) {
                drifts.add(new Drift(
                        "account " + rule.share() + rule.path() + " of "
                                + rule.apart().title() + " " + owner,
                        said,
                        bytes));
                accounts.set(rule, owner, bytes);
            }
        });
        return drifts;
    }

    private List<Drift> folders() {
        List<Drift> drifts = new ArrayList<>();
        db.select(ACCOUNT.RULE_HASH, ACCOUNT.HOLDER_HASH, ACCOUNT.SHARE, ACCOUNT.HOLDER, ACCOUNT.USED_BYTES, COUNTED)
                .from(ACCOUNT)
                .join(CATALOGUE)
                .on(CATALOGUE.NAME.eq(ACCOUNT.SHARE))
                .leftJoin(FOLDER)
                .on(FOLDER.CATALOGUE_NO.eq(CATALOGUE.NO), FOLDER.PATH_HASH.eq(ACCOUNT.HOLDER_HASH))
                .where(ACCOUNT.USED_BYTES.ne(COUNTED), ACCOUNT.HOLDER_KIND.in(AccountStore.FOLDERS))
                .forEach(row -> {
                    drifts.add(new Drift(
                            "account " + row.value3() + PathBytes.shown(row.value4()), row.value5(), row.value6()));
                    db.update(ACCOUNT)
                            .set(ACCOUNT.USED_BYTES, row.value6())
                            .set(ACCOUNT.FULLNESS, AccountStore.fullness())
                            .where(ACCOUNT.RULE_HASH.eq(row.value1()), ACCOUNT.HOLDER_HASH.eq(row.value2()))
                            .execute();
                });
        return drifts;
    }

    private Optional<Drift> volume(Share share) {
        Long counted = db.select(FOLDER.SUM_ALLOCATED)
                .from(CATALOGUE)
                .join(FOLDER)
                .on(FOLDER.CATALOGUE_NO.eq(CATALOGUE.NO), FOLDER.NO.eq(0))
                .where(CATALOGUE.NAME.eq(share.name()))
                .fetchOne(FOLDER.SUM_ALLOCATED);
        Long said = db.select(VOLUME_USAGE.LIVE_BYTES)
                .from(VOLUME_USAGE)
                .where(VOLUME_USAGE.VOLUME.eq(share.volume()))
                .fetchOne(VOLUME_USAGE.LIVE_BYTES);
        if (counted == null || counted.equals(said)) {
            return Optional.empty();
        }
        db.insertInto(VOLUME_USAGE)
                .set(VOLUME_USAGE.VOLUME, share.volume())
                .set(VOLUME_USAGE.LIVE_BYTES, counted)
                .set(VOLUME_USAGE.SNAPSHOT_BYTES, 0L)
                .onDuplicateKeyUpdate()
                .set(VOLUME_USAGE.LIVE_BYTES, counted)
                .execute();
        return Optional.of(new Drift("volume " + share.volume(), said == null ? 0 : said, counted));
    }
}
