package org.vastshelf.core.estate;

import java.util.List;

/**
 * What is wanted of a share after a mishap.
 *
 * @param loseMinutes no more than what changed in so many is to be lost: 5 to 525,600
 * @param backMinutes after so many at most it is to be there again: 1 to 525,600
 * @param against the mishaps for which that is wanted; at least one
 */
public record ProtectionGoal(String share, int loseMinutes, int backMinutes, List<Loss> against) implements Rule {

    private static final int YEAR = 525_600;
    private static final int LEAST_LOSS = 5;

    /** What can happen to a share. */
    public enum Loss {
        MISTAKE("a file changed or deleted by mistake"),
        VOLUME("the volume lost"),
        SERVER("its file server lost"),
        SITE("its site lost"),
        ACCOUNT("an administrator's account in wrong hands");

        private final String title;

        Loss(String title) {
            this.title = title;
        }

        public String title() {
            return title;
        }
    }

    public ProtectionGoal {
        require("minutes that may be lost", loseMinutes, LEAST_LOSS);
        require("minutes until it is back", backMinutes, 1);
        against = List.copyOf(against);
        if (against.isEmpty()) {
            throw new IllegalArgumentException("no mishap is chosen, must be at least 1");
        }
    }

    private static void require(String what, int minutes, int least) {
        if (minutes < least || minutes > YEAR) {
            throw new IllegalArgumentException(what + " are " + minutes + ", must be " + least + " to " + YEAR);
        }
    }

    @Override
    public Kind<ProtectionGoal> kind() {
        return Kinds.GOAL;
    }

    @Override
    public Kind<?> subject() {
        return Kinds.SHARE;
    }

    @Override
    public String governs() {
        return share;
    }

    @Override
    public ProtectionGoal governing(String other) {
        return new ProtectionGoal(other, loseMinutes, backMinutes, against);
    }

    @Override
    public String title() {
        return "Of share " + share + " lose at most " + loseMinutes + " minutes, and have it back within "
                + backMinutes;
    }
}
