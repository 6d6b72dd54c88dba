package org.vastshelf.core.tier;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.estate.SharePlace;
import org.vastshelf.core.estate.TieringRule;

/**
 * Which files of one catalogue a rule is about, whatever their age.
 *
 * @param folders paths from the root, each beginning with a slash; none for all
 * @param exceptFolders what lies there, or below, stays
 * @param kinds only these; none for all
 * @param exceptPeople whose files stay
 * @param largerThanBytes files of this size stay; {@link #ANY_SIZE} for all sizes
 */
public record Scope(
        List<String> folders,
        List<String> exceptFolders,
        Set<FileKind> kinds,
        List<String> exceptPeople,
        long largerThanBytes) {

    /** A size below which no file lies. */
    public static final long ANY_SIZE = -1;

    private static final String ROOT = "/";

    public Scope {
        if (largerThanBytes < ANY_SIZE) {
            throw new IllegalArgumentException("largerThanBytes is " + largerThanBytes + ", must be at least 0");
        }
        folders = List.copyOf(folders);
        exceptFolders = List.copyOf(exceptFolders);
        kinds = Set.copyOf(kinds);
        exceptPeople = List.copyOf(exceptPeople);
    }

    /** All but what is so small or lies in some folders. */
    public static Scope except(List<String> folders, long largerThanBytes) {
        return new Scope(List.of(), folders, Set.of(), List.of(), largerThanBytes);
    }

    /** What a rule is about in a share; nothing where it does not look there. */
    public static Optional<Scope> of(TieringRule rule, String share) {
        List<String> folders = within(rule.places(), share);
        return folders.isEmpty()
                ? Optional.empty()
                : Optional.of(new Scope(
                        folders.contains(ROOT) ? List.of() : folders,
                        within(rule.exceptPlaces(), share),
                        rule.kinds(),
                        rule.exceptPeople(),
                        rule.largerThanBytes()));
    }

    private static List<String> within(List<SharePlace> places, String share) {
        return places.stream()
                .filter(place -> place.share().equals(share))
                .map(place -> place.folder().text())
                .toList();
    }

    public boolean isOfAnySize() {
        return largerThanBytes == ANY_SIZE;
    }

    /** Whether sizes and excepted folders are all that it looks at. */
    public boolean isOfAllKindsAndPeople() {
        return folders.isEmpty() && kinds.isEmpty() && exceptPeople.isEmpty();
    }
}
