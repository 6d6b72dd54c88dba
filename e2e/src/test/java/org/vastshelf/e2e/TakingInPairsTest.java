package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.common.CommonCheck;
import org.vastshelf.app.common.CommonSweep;
import org.vastshelf.app.content.KeptCheck;
import org.vastshelf.app.limit.AccountCheck;
import org.vastshelf.app.snapshot.HoldCheck;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.Usage;
import tools.jackson.databind.JsonNode;

/** A volume whose files share units has a copy that shares likewise, takes its place and gives it back. */
class TakingInPairsTest {

    private static final ShareHand BROOK = new ShareHand("brook");
    private static final ShareHand RILL = new ShareHand("rill");
    private static final int BLOCK = 4_096;

    @AfterEach
    void whole() {
        App.bean(CommonSweep.class).sweep();
        KeptCheck.Report kept = App.bean(KeptCheck.class).look();
        assertThat(kept.mended() + kept.missing()).isZero();
        assertThat(App.bean(HoldCheck.class).look()).isEmpty();
        assertThat(App.bean(CommonCheck.class).look()).isEmpty();
        assertThat(App.bean(AccountCheck.class).mend(App.bean(ShelfClock.class).instant()))
                .isEmpty();
    }

    private static void bench(String mishap) {
        App.Reply reply = App.post("odile", "/api/v1/bench", mishap);
        assertThat(reply.status()).as(reply.text()).isEqualTo(200);
    }

    private static void later(int hours) {
        assertThat(App.post("odile", "/api/v1/time", "{\"hours\":" + hours + "}")
                        .status())
                .isLessThan(300);
    }

    private static Usage.Held held(String volume) {
        return App.bean(UsageStore.class).load().of(volume);
    }

    private static JsonNode pair(ShareHand hand) {
        return App.get("odile", "/api/v1/pairs/" + hand.share()).json();
    }

    private static String makePair(ShareHand hand, String mode, int address) {
        return "{\"change\":\"MakePair\",\"pool\":\"reed\",\"pair\":{\"volume\":\"" + hand.share()
                + "\",\"copy\":\"copy-"
                + hand.share() + "\",\"mode\":\"" + mode
                + "\",\"intervalMinutes\":60,\"refuses\":false,\"host\":\"" + hand.share()
                + ".larkmoor.example\",\"address\":\"10.20.9." + address + "\",\"paused\":false,\"over\":false}}";
    }

    private static void awaitInStep(ShareHand hand) throws InterruptedException {
        for (int i = 0; i < 150 && !pair(hand).path("state").asString().equals("in step"); i++) {
            Thread.sleep(200);
        }
        assertThat(pair(hand).path("state").asString())
                .as(pair(hand).toString())
                .isEqualTo("in step");
    }

    /** Until what is there by now has arrived. */
    private static void sent(ShareHand hand) throws InterruptedException {
        later(3);
        for (int i = 0; i < 150 && pair(hand).path("lacks").asLong() > 0; i++) {
            Thread.sleep(200);
        }
        assertThat(pair(hand).path("lacks").asLong()).as(pair(hand).toString()).isZero();
        copyTakesTheSame(hand);
    }

    private static void copyTakesTheSame(ShareHand hand) {
        assertThat(held("copy-" + hand.share()).used())
                .as("the copy takes what the files of the volume do")
                .isEqualTo(held(hand.share()).copied());
    }

    private static void connected() {
        bench("{\"mishap\":\"LinkChanges\",\"one\":\"glasshouse-hill\",\"other\":\"saltmarsh-annex\","
                + "\"mibps\":38,\"roundTripMillis\":4,\"lossPermille\":0,\"cut\":false}");
    }

    @Test
    void what_is_kept_once_is_kept_once_on_the_other_side_and_stays_so_when_they_change_places() throws Exception {
        connected();
        Drafts.discardAll();
        Drafts.carryOut(BROOK.made());
        byte[] talk = ShareHand.random(10 * BLOCK, 1);
        byte[] note = ShareHand.random(3 * BLOCK, 2);
        BROOK.save("/talk.bin", talk);
        BROOK.copy("/talk.bin", "/again.bin");
        BROOK.save("/note.bin", note);
        Drafts.carryOut(makePair(BROOK, "BY_INTERVAL", 92));
        awaitInStep(BROOK);
        assertThat(held("copy-brook").used().value()).isEqualTo(23L * BLOCK);
        Drafts.carryOut(BROOK.keepsEqualBlocksOnce());

        BROOK.spare();
        assertThat(held("brook").common().kept().value()).isEqualTo(13L * BLOCK);
        assertThat(pair(BROOK).path("lacks").asLong())
                .as("nobody has changed anything")
                .isZero();
        BROOK.save("/third.bin", talk);
        assertThat(pair(BROOK).path("lacks").asLong()).isEqualTo(10L * BLOCK);
        BROOK.spare();
        sent(BROOK);
        assertThat(held("copy-brook").used().value())
                .as("the talk once, and the note")
                .isEqualTo(13L * BLOCK);
        whole();

        byte[] changed = talk.clone();
        changed[7] ^= 1;
        BROOK.edit("/talk.bin", 7, changed[7]);
        BROOK.remove("/note.bin");
        bench("{\"mishap\":\"PowerCut\",\"server\":\"fernhill\"}");
        try {
            Drafts.carryOut("{\"change\":\"FailOver\",\"volume\":\"brook\",\"inNeed\":true}");
            assertThat(BROOK.read("/talk.bin")).as("as the copy has it").isEqualTo(talk);
            assertThat(BROOK.read("/note.bin")).isEqualTo(note);
            assertThat(BROOK.read("/third.bin")).isEqualTo(talk);
            whole();
            BROOK.save("/there.bin", talk);
            BROOK.spare();
            whole();
            assertThat(held("brook").copied().value())
                    .as("nothing is twice there either: %s", held("brook"))
                    .isEqualTo(13L * BLOCK);
        } finally {
            bench("{\"mishap\":\"PowerBack\",\"server\":\"fernhill\"}");
        }
        Drafts.carryOut("{\"change\":\"GoBack\",\"volume\":\"brook\"}");
        awaitInStep(BROOK);
        for (String path : Arrays.asList("/talk.bin", "/again.bin", "/third.bin", "/there.bin")) {
            assertThat(BROOK.read(path)).as(path).isEqualTo(talk);
        }
        BROOK.edit("/again.bin", 7, changed[7]);
        assertThat(BROOK.read("/again.bin")).isEqualTo(changed);
        assertThat(BROOK.read("/third.bin")).as("its units are its own").isEqualTo(talk);
        sent(BROOK);
        whole();

        Drafts.carryOut("{\"change\":\"FailOver\",\"volume\":\"brook\",\"inNeed\":false}");
        assertThat(BROOK.read("/again.bin")).as("nothing is lost as planned").isEqualTo(changed);
        Drafts.carryOut("{\"change\":\"GoBack\",\"volume\":\"brook\"}");
        awaitInStep(BROOK);
        Drafts.carryOut("{\"change\":\"EndPair\",\"volume\":\"brook\"}");
        Drafts.carryOut("{\"change\":\"DropRule\",\"kind\":\"saving rule\",\"governs\":\"brook\"}");
    }

    @Test
    void a_copy_in_step_shares_likewise_and_lacks_nothing_when_its_site_is_lost() throws Exception {
        connected();
        Drafts.discardAll();
        Drafts.carryOut(RILL.made());
        byte[] talk = ShareHand.random(10 * BLOCK, 3);
        RILL.save("/talk.bin", talk);
        RILL.save("/again.bin", talk);
        Drafts.carryOut(RILL.keepsEqualBlocksOnce());
        RILL.spare();
        Drafts.carryOut(makePair(RILL, "IN_STEP", 93));
        awaitInStep(RILL);
        assertThat(held("copy-rill").used().value()).as("seeded as it is kept").isEqualTo(10L * BLOCK);

        RILL.save("/third.bin", talk);
        byte[] changed = talk.clone();
        changed[7] ^= 1;
        RILL.edit("/again.bin", 7, changed[7]);
        assertThat(pair(RILL).path("lacks").asLong()).isZero();
        RILL.spare();
        assertThat(pair(RILL).path("lacks").asLong()).isZero();
        copyTakesTheSame(RILL);
        assertThat(held("copy-rill").used().value())
                .as("the talk once, and the block that was changed")
                .isEqualTo(11L * BLOCK);
        whole();

        bench("{\"mishap\":\"PowerCut\",\"server\":\"fernhill\"}");
        try {
            Drafts.carryOut("{\"change\":\"FailOver\",\"volume\":\"rill\",\"inNeed\":true}");
            assertThat(RILL.read("/third.bin")).as("confirmed by both").isEqualTo(talk);
            assertThat(RILL.read("/again.bin")).isEqualTo(changed);
            RILL.edit("/talk.bin", 7, changed[7]);
            RILL.spare();
            whole();
        } finally {
            bench("{\"mishap\":\"PowerBack\",\"server\":\"fernhill\"}");
        }
        Drafts.carryOut("{\"change\":\"GoBack\",\"volume\":\"rill\"}");
        awaitInStep(RILL);
        assertThat(RILL.read("/talk.bin")).isEqualTo(changed);
        copyTakesTheSame(RILL);
        whole();
        Drafts.carryOut("{\"change\":\"EndPair\",\"volume\":\"rill\"}");
        Drafts.carryOut("{\"change\":\"DropRule\",\"kind\":\"saving rule\",\"governs\":\"rill\"}");
    }
}
