package org.vastshelf.app.tier;

import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;

import java.time.Instant;
import java.util.List;
import org.jooq.CaseConditionStep;
import org.jooq.Condition;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.vastshelf.app.catalogue.AgeTallyStore;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.core.catalogue.AgeBasis;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.tier.Scope;
import org.vastshelf.core.tier.Standing;
import org.vastshelf.core.tier.TierRule;

/** What is asked of the files of one catalogue, as conditions on their rows and on those of their folders. */
record TierQuestionStore(int catalogue, TierRule rule, Instant at) {

    private static final int DAY = 86_400;

    static Field<Long> day(AgeBasis by) {
        return DSL.field("file." + AgeTallyStore.dayColumn(by), Long.class);
    }

    static Field<Long> time(AgeBasis by) {
        return by == AgeBasis.LAST_CHANGE ? FILE.MODIFIED_AT : DSL.greatest(FILE.MODIFIED_AT, FILE.ACCESSED_AT);
    }

    /** What holds something here; of what has left nothing more can leave. */
    static Condition isHere() {
        return DSL.condition("LEFT({0}, 2) <> {1}", FILE.EXTENTS, DSL.inline(ContentsCode.COLD));
    }

    long today() {
        return Math.floorDiv(at.getEpochSecond(), DAY);
    }

    long lastTime() {
        return rule.lastTime(at);
    }

    long lastDay() {
        return Math.floorDiv(lastTime(), DAY);
    }

    Field<Long> day() {
        return day(rule.by());
    }

    Field<Long> time() {
        return time(rule.by());
    }

    Condition ofCatalogue() {
        return FILE.CATALOGUE_NO.eq(catalogue).and(FILE.COUNTED.eq(1));
    }

    Condition large() {
        return large(rule.scope());
    }

    private static Condition large(Scope scope) {
        return FILE.BYTES.gt(scope.largerThanBytes());
    }

    Condition old() {
        return time().le(lastTime());
    }

    /** Whether folders decide about files. */
    boolean looksAtFolders() {
        return !rule.earlier().isEmpty()
                || !rule.scope().folders().isEmpty()
                || !rule.scope().exceptFolders().isEmpty();
    }

    Condition mayLeave() {
        return isAbout(rule.scope()).andNot(isEarlier()).and(old());
    }

    private static Condition isAbout(Scope scope) {
        return isWithin(scope)
                .andNot(below(scope.exceptFolders()))
                .andNot(isOfAnotherKind(scope))
                .andNot(isOfSomebodySpared(scope))
                .and(large(scope));
    }

    private static Condition isWithin(Scope scope) {
        return scope.folders().isEmpty() ? DSL.trueCondition() : below(scope.folders());
    }

    private static Condition isOfAnotherKind(Scope scope) {
        return scope.kinds().isEmpty()
                ? DSL.falseCondition()
                : FILE.KIND.notIn(
                        scope.kinds().stream().map(FileKind::ordinal).sorted().toList());
    }

    private static Condition isOfSomebodySpared(Scope scope) {
        return scope.exceptPeople().isEmpty() ? DSL.falseCondition() : FILE.OWNER.in(scope.exceptPeople());
    }

    private Condition isEarlier() {
        return DSL.or(rule.earlier().stream().map(TierQuestionStore::isAbout).toList());
    }

    /** The number of the {@link Standing} of a file; of several reasons the one that lasts the longest. */
    Field<Integer> standing() {
        return reasons().when(DSL.not(old()), number(Standing.YOUNG)).otherwise(number(Standing.LEAVES));
    }

    /** The same, if any age were old enough. */
    Field<Integer> standingAtAnyAge() {
        return reasons().otherwise(number(Standing.LEAVES));
    }

    private CaseConditionStep<Integer> reasons() {
        Scope scope = rule.scope();
        return DSL.when(DSL.not(isHere()), number(Standing.LEFT))
                .when(DSL.not(isWithin(scope)), number(Standing.ELSEWHERE))
                .when(below(scope.exceptFolders()), number(Standing.EXCEPTED))
                .when(isOfAnotherKind(scope), number(Standing.KIND))
                .when(isOfSomebodySpared(scope), number(Standing.PERSON))
                .when(DSL.not(large()), number(Standing.SMALL))
                .when(isEarlier(), number(Standing.EARLIER));
    }

    private static Field<Integer> number(Standing standing) {
        return DSL.inline(standing.ordinal());
    }

    /** What lies in some folders themselves, or in folders in them. */
    static Condition below(List<String> folders) {
        return DSL.or(folders.stream().map(TierQuestionStore::below).toList());
    }

    private static Condition below(String folder) {
        byte[] path = PathBytes.parse(folder);
        if (path.length == 1) {
            return DSL.trueCondition();
        }
        byte[] inside = PathBytes.child(path, new byte[0]);
        return FOLDER.PATH
                .eq(path)
                .or(DSL.condition("LEFT({0}, {1}) = {2}", FOLDER.PATH, DSL.val(inside.length), DSL.val(inside)));
    }
}
