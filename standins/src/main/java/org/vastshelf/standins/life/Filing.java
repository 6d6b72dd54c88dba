package org.vastshelf.standins.life;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.vastshelf.core.content.Contents;
import org.vastshelf.standins.content.Texture;

/** Fills a share with files. The same share always gets the same ones. */
final class Filing {

    final Random random;
    final Crew crew;
    private final String share;
    private final List<LivingFile> files = new ArrayList<>();
    private final Set<String> paths = new HashSet<>();
    private long bytes;
    private long serial;

    Filing(String share, Crew crew) {
        this(share, crew, new Random(share.hashCode() * 31L + 20_260_302));
    }

    /** For what one day brings. */
    Filing(String share, LocalDate day, Crew crew) {
        this(share + day, crew, DayRandom.of(share, day));
    }

    private Filing(String share, Crew crew, Random random) {
        this.share = share;
        this.crew = crew;
        this.random = random;
    }

    List<LivingFile> files() {
        return files;
    }

    long bytes() {
        return bytes;
    }

    /** Contents of a file's own. */
    Contents fresh(String name, long length) {
        long number = (share.hashCode() & 0xFFFFFFL) << 28 | ++serial;
        return Contents.of(Texture.of(name).stream(number), length);
    }

    Staffer one(String department) {
        return Crew.one(random, crew.of(department));
    }

    <T> T one(List<T> many) {
        return Crew.one(random, many);
    }

    /** A new file with contents of its own; another name is found where there is one already. */
    LivingFile add(String folder, String name, Sizes sizes, Staffer owner, long modified) {
        return add(folder, name, fresh(name, sizes.draw(random)), owner, modified);
    }

    LivingFile add(String folder, String name, Contents contents, Staffer owner, long modified) {
        String free = free(folder, name);
        LivingFile file = new LivingFile(folder, free, contents, owner, modified);
        files.add(file);
        bytes += file.bytes();
        return file;
    }

    private String free(String folder, String name) {
        int dot = name.lastIndexOf('.');
        String free = name;
        for (int i = 2; !paths.add(folder + "/" + free); i++) {
            free = dot < 0 ? name + " " + i : name.substring(0, dot) + " (" + i + ")" + name.substring(dot);
        }
        return free;
    }

    long at(LocalDate day, Staffer who) {
        return Hours.moment(random, day, who);
    }

    boolean oneIn(int many) {
        return random.nextInt(many) == 0;
    }

    int between(int least, int most) {
        return least + random.nextInt(most - least + 1);
    }
}
