package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.concurrent.TimeUnit;
import org.jooq.DSLContext;

/** When buckets are compared with what is known of them, which removes objects of which nothing is known. */
final class Comparisons {

    private static final DSLContext DB = App.bean(DSLContext.class);

    private Comparisons() {}

    /** Waits until those that were asked for, by a night that passed too, have come to their end. */
    static void ended() throws InterruptedException {
        String open = "SELECT store FROM bucket_check WHERE done_at IS NULL";
        for (int i = 0; i < 600 && DB.fetch(open).isNotEmpty(); i++) {
            TimeUnit.MILLISECONDS.sleep(100);
        }
        assertThat(DB.fetch(open)).isEmpty();
    }

    /** As another node would, which has just begun: here none begins, and what is not known is left alone. */
    static void elsewhere(String store) throws InterruptedException {
        ended();
        DB.execute("REPLACE INTO lease VALUES (?, 'elsewhere', UTC_TIMESTAMP(6) + INTERVAL 1 HOUR)", "bucket " + store);
    }

    static void hereAgain() {
        DB.execute("DELETE FROM lease WHERE node = 'elsewhere'");
    }
}
