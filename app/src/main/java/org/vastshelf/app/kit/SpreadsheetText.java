package org.vastshelf.app.kit;

import java.util.regex.Pattern;

/**
 * Text in files that spreadsheets open. What they would take for a formula gets an apostrophe before it, which they show
 * as plain text; reading takes that one away again, so that the own form comes back unchanged.
 *
 * @see <a href="https://owasp.org/www-community/attacks/CSV_Injection">CSV injection</a>
 */
public final class SpreadsheetText {

    private static final Pattern FORMULA = Pattern.compile("'*[=+\\-@\\t\\r\\n＝＋－＠].*", Pattern.DOTALL);

    private SpreadsheetText() {}

    public static String written(String text) {
        return FORMULA.matcher(text).matches() ? "'" + text : text;
    }

    public static String read(String cell) {
        return cell.startsWith("'") && FORMULA.matcher(cell).matches() ? cell.substring(1) : cell;
    }
}
