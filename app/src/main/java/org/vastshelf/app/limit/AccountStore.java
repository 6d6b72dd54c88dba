package org.vastshelf.app.limit;

import static org.vastshelf.app.store.generated.Tables.ACCOUNT_STATE;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.FileWrites;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.store.Times;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.limit.AccountState;
import org.vastshelf.core.limit.LimitRule;
import org.vastshelf.core.limit.Stance;
import org.vastshelf.core.unit.Bytes;

/** Accounts of limit rules: what they hold comes from the catalogue's sums, their state is kept here. */
@Component
public class AccountStore {

    private final DSLContext db;
    private final CatalogueStore catalogues;
    private final FileWrites files;

    AccountStore(DSLContext db, CatalogueStore catalogues, FileWrites files) {
        this.db = db;
        this.catalogues = catalogues;
        this.files = files;
    }

    /** The accounts that a write to a path touches, outermost folder first. */
    public List<Account> touchedBy(Estate estate, String share, int catalogue, FilePath path) {
        List<Account> accounts = new ArrayList<>();
        estate.limitsOn(share)
                .forEach(rule -> rule.accountFor(path).ifPresent(folder -> {
                    long used = files.held(catalogue, List.of(folder)).getFirst();
                    accounts.add(new Account(rule, folder, Bytes.of(used), state(rule, folder)));
                }));
        accounts.sort(Comparator.comparingInt(a -> a.folder().parts().size()));
        return accounts;
    }

    /** The accounts of one rule, fullest first. */
    public List<Account> of(LimitRule rule, int limit) {
        return catalogues
                .find(rule.share())
                .flatMap(c -> catalogues
                        .folder(c.no(), PathBytes.of(rule.path().text()))
                        .map(folder ->
                                rule.eachChild() ? catalogues.children(c.no(), folder.no(), limit) : List.of(folder)))
                .orElse(List.of())
                .stream()
                .map(f -> new Account(
                        rule, new FilePath(f.shown()), Bytes.of(f.bytes()), state(rule, new FilePath(f.shown()))))
                .sorted(Comparator.comparing(Account::used).reversed())
                .toList();
    }

    private AccountState state(LimitRule rule, FilePath folder) {
        return db.selectFrom(ACCOUNT_STATE)
                .where(ACCOUNT_STATE.RULE_KEY.eq(rule.key()), ACCOUNT_STATE.FOLDER_HASH.eq(hash(folder)))
                .fetchOptional(row -> new AccountState(
                        Optional.ofNullable(Times.instant(row.getGraceSince())),
                        Arrays.stream(row.getFired().split(","))
                                .filter(s -> !s.isEmpty())
                                .map(Stance::valueOf)
                                .collect(Collectors.toSet())))
                .orElse(AccountState.FRESH);
    }

    public void keep(Account account, AccountState state) {
        String fired = state.fired().stream().sorted().map(Stance::name).collect(Collectors.joining(","));
        var since = Times.stored(state.graceSince().orElse(null));
        db.insertInto(ACCOUNT_STATE)
                .values(account.rule().key(), hash(account.folder()), since, fired)
                .onDuplicateKeyUpdate()
                .set(ACCOUNT_STATE.GRACE_SINCE, since)
                .set(ACCOUNT_STATE.FIRED, fired)
                .execute();
    }

    private static String hash(FilePath folder) {
        return HexFormat.of().formatHex(PathBytes.hash(PathBytes.of(folder.text())));
    }
}
