package org.vastshelf.app.road;

import java.util.Collection;
import java.util.List;
import java.util.stream.Stream;
import org.springframework.stereotype.Service;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.RetentionRule;
import org.vastshelf.core.estate.Share;

/** Folders as something that is brought back leaves them: those of then are there, and those that hold nothing are not. */
@Service
public class EmptyFolders {

    private final EstateStore estates;
    private final RuleBooks books;
    private final LivesStore lives;
    private final PlacesStore places;
    private final TreeStore trees;

    EmptyFolders(EstateStore estates, RuleBooks books, LivesStore lives, PlacesStore places, TreeStore trees) {
        this.estates = estates;
        this.books = books;
        this.lives = lives;
        this.places = places;
        this.trees = trees;
    }

    /**
     * Makes folders that are missing, and removes those that hold nothing and that no rule is about.
     *
     * @throws Taken when a file has the name of one that is missing
     */
    public void settle(String shareName, Collection<FilePath> made, Collection<FilePath> removed) {
        RuleBook book = books.of(estates.held());
        Share share = book.share(shareName);
        Epoch epoch = lives.lockTree(share);
        places.made(shareName, made, epoch);
        trees.catalogue(shareName)
                .ifPresent(catalogue -> removed.stream()
                        .filter(folder -> !folder.isRoot() && isFree(book, shareName, folder))
                        .sorted((one, other) ->
                                other.parts().size() - one.parts().size())
                        .forEach(folder -> remove(catalogue, trees.tree(catalogue, folder), epoch)));
    }

    private void remove(int catalogue, List<TreeStore.Branch> tree, Epoch epoch) {
        if (tree.size() == 1 && !trees.holdFiles(catalogue, tree.getFirst())) {
            lives.foldersGone(catalogue, List.of(tree.getFirst().no()), epoch);
            trees.remove(catalogue, tree);
        }
    }

    private static boolean isFree(RuleBook book, String share, FilePath folder) {
        return book.ruleWithin(share, folder).isEmpty()
                && Stream.concat(
                                book.retaining(share, folder.child("x")).stream(),
                                book.retainingBelow(share, folder).stream())
                        .map(RetentionRule::folder)
                        .noneMatch(of -> of.isWithin(folder));
    }
}
