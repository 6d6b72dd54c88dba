package org.vastshelf.app.kit;

import java.math.BigDecimal;

/** Amounts of money as people type them. */
public final class AmountText {

    private static final int LONGEST = 30;

    private AmountText() {}

    /**
     * Reads an amount, with a point or a comma before its decimals.
     *
     * @param field where it was typed
     * @throws AtField when it is none
     */
    public static BigDecimal parse(String field, String typed) {
        String text = typed == null ? "" : typed.strip();
        return AtField.read(field, () -> {
            if (text.length() > LONGEST) {
                throw new IllegalArgumentException(
                        "the amount has " + text.length() + " characters, must have at most " + LONGEST);
            }
            try {
                return new BigDecimal(text.replace(',', '.'));
            } catch (NumberFormatException none) {
                throw new IllegalArgumentException("'" + text + "' is no amount; type one such as 4.25", none);
            }
        });
    }
}
