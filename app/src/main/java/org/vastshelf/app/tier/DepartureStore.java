package org.vastshelf.app.tier;

import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;

import java.util.List;
import java.util.OptionalLong;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.away.Departing;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.core.catalogue.AgeBasis;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.TieringRule;

/** Finds the files of a share that may leave, day by day, the coldest first. */
@Component
class DepartureStore {

    private final DSLContext db;

    DepartureStore(DSLContext db) {
        this.db = db;
    }

    /** The first day from the given one on, up to and with another, from which files are. */
    OptionalLong day(int catalogue, AgeBasis by, long from, long upTo) {
        Long found = db.select(DSL.min(TierQuestionStore.day(by)))
                .from(FILE)
                .where(
                        FILE.CATALOGUE_NO.eq(catalogue),
                        TierQuestionStore.day(by).between(from, upTo))
                .fetchSingle()
                .value1();
        return found == null ? OptionalLong.empty() : OptionalLong.of(found);
    }

    /** Files of a day that are here: the oldest first, then the longest, then by path. */
    List<Departing.Found> ofDay(int catalogue, String share, TieringRule rule, long day, long lastTime) {
        return db.select(
                        FOLDER.PATH,
                        FILE.NAME,
                        FILE.BYTES,
                        FILE.ALLOCATED,
                        FILE.OWNER,
                        FILE.OWNER_GROUP,
                        FILE.MODIFIED_AT,
                        FILE.ACCESSED_AT,
                        FILE.CHANGED_AT,
                        FILE.KIND,
                        FILE.EXTENTS)
                .from(FILE)
                .join(FOLDER)
                .on(FOLDER.CATALOGUE_NO.eq(FILE.CATALOGUE_NO), FOLDER.NO.eq(FILE.FOLDER_NO))
                .where(
                        FILE.CATALOGUE_NO.eq(catalogue),
                        TierQuestionStore.day(rule.by()).eq(day))
                .and(FILE.BYTES.gt(rule.largerThanBytes()))
                .and(TierQuestionStore.time(rule.by()).le(lastTime))
                .and(TierQuestionStore.isHere())
                .orderBy(TierQuestionStore.time(rule.by()), FILE.BYTES.desc(), FOLDER.PATH, FILE.NAME)
                .fetch(row -> new Departing.Found(
                        share,
                        new FilePath(PathBytes.shown(PathBytes.child(row.value1(), row.value2()))),
                        new FileRow(
                                row.value2(),
                                row.value3(),
                                row.value4(),
                                row.value5(),
                                row.value6(),
                                row.value7(),
                                row.value8(),
                                row.value9(),
                                FileKind.values()[row.value10()]),
                        ContentsCode.read(row.value11())));
    }
}
