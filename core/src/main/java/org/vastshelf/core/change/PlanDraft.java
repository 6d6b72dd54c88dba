package org.vastshelf.core.change;

import java.util.ArrayList;
import java.util.List;
import org.vastshelf.core.change.Check.Verdict;
import org.vastshelf.core.estate.Estate;

/** Collects steps and findings while a draft is planned. */
final class PlanDraft {

    private final Estate before;
    private Estate after;
    private final List<Step> steps = new ArrayList<>();
    private final List<Check> checks = new ArrayList<>();
    private final List<String> permanent = new ArrayList<>();

    PlanDraft(Estate estate) {
        this.before = estate;
        this.after = estate;
    }

    Estate estate() {
        return after;
    }

    void step(Step step) {
        steps.add(step);
        after = step.apply(after);
    }

    void fine(String key, String text) {
        checks.add(Check.fine(key, text));
    }

    void watch(String key, String text, String remedy) {
        checks.add(new Check(Verdict.WATCH, key, text, remedy));
    }

    void confirm(String key, String text) {
        checks.add(new Check(Verdict.CONFIRM, key, text, ""));
    }

    /** Records a reason not to go on with a change. */
    void refuse(String key, String text, String remedy) {
        checks.add(Check.refuse(key, text, remedy));
    }

    void permanent(String text) {
        permanent.add(text);
    }

    Plan toPlan() {
        return new Plan(steps, checks, permanent, before, after);
    }
}
