package org.vastshelf.app.kit;

/** Reads whole numbers and per cents as people type them. */
public final class WholeNumbers {

    private WholeNumbers() {}

    /**
     * Reads "12", "12 %" or "12%".
     *
     * @throws IllegalArgumentException naming the value and the bounds
     */
    public static int percent(String name, String text, int least, int most) {
        String digits = text.strip().replaceFirst("\\s*%$", "");
        if (!digits.matches("\\d{1,6}") || Integer.parseInt(digits) < least || Integer.parseInt(digits) > most) {
            throw new IllegalArgumentException(name + " is '" + text.strip()
                    + "', must be a whole number of per cent from " + least + " to " + most);
        }
        return Integer.parseInt(digits);
    }

    /** Reads a whole number without a unit. */
    public static int whole(String what, String text) {
        String digits = text.strip().replace(",", "");
        if (!digits.matches("\\d{1,9}")) {
            throw new IllegalArgumentException(what + " is '" + text.strip() + "', must be a whole number");
        }
        return Integer.parseInt(digits);
    }
}
