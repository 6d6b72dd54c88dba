package org.vastshelf.app.build;

/** Reads whole per cents as people type them. */
final class Percent {

    private Percent() {}

    /**
     * Reads "12", "12 %" or "12%".
     *
     * @throws IllegalArgumentException naming the value and the bounds
     */
    static int parse(String name, String text, int least, int most) {
        String digits = text.strip().replaceFirst("\\s*%$", "");
        if (!digits.matches("\\d{1,6}") || Integer.parseInt(digits) < least || Integer.parseInt(digits) > most) {
            throw new IllegalArgumentException(name + " is '" + text.strip()
                    + "', must be a whole number of per cent from " + least + " to " + most);
        }
        return Integer.parseInt(digits);
    }
}
