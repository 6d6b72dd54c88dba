package org.vastshelf.standins.life;

import java.time.LocalDate;
import java.util.List;

/** A run of the sequencer comes in at night; people put assemblies together from several. */
final class Sequences implements ShareMaker {

    private static final List<String> SPECIES =
            List.of("betula-pubescens", "carex-bigelowii", "drosera-rotundifolia", "salix-lapponum", "juncus-trifidus");
    private static final LocalDate OLD = LocalDate.of(2024, 3, 1);

    private int run;

    Sequences() {
        this(180);
    }

    /** Goes on after a number. */
    Sequences(int run) {
        this.run = run;
    }

    @Override
    public void save(Filing filing, LocalDate day) {
        if (filing.oneIn(3)) {
            assemble(filing, day);
        } else {
            run(filing, day);
        }
    }

    private void run(Filing filing, LocalDate day) {
        Staffer machine = filing.crew.named("sequencer", "seed-genomics");
        String folder = (day.isBefore(OLD) ? "/old-runs/" : "/runs/") + day + "-run" + ++run;
        long at = Hours.night(filing.random, day);
        filing.add(folder, "samples.csv", Sizes.TEXT, machine, at);
        int samples = filing.between(4, 12);
        for (int i = 1; i <= samples; i++) {
            String sample = "s%02d".formatted(i);
            for (int direction = 1; direction <= 2; direction++) {
                at += 90 + filing.random.nextInt(120);
                filing.add(folder + "/reads", sample + "-r" + direction + ".fastq.gz", Sizes.READS, machine, at);
            }
            filing.add(folder + "/quality", sample + ".html", Sizes.PRINT, machine, at + 20);
            filing.add(folder + "/quality", sample + ".txt", Sizes.TEXT, machine, at + 21);
        }
        filing.add(folder, "run.log", Sizes.TEXT, machine, at + 60);
    }

    private static void assemble(Filing filing, LocalDate day) {
        Staffer who = filing.one("seed-genomics");
        String folder = "/assemblies/" + filing.one(SPECIES) + "/" + who.uid() + "-" + day;
        long at = filing.at(day, who);
        filing.add(folder, "assembly.fasta", Sizes.ASSEMBLY, who, at);
        filing.add(folder, "mapped.bam", Sizes.ALIGNMENT, who, at + 4_000);
        filing.add(folder, "steps.sh", Sizes.TEXT, who, at - 900);
        filing.add(folder, "notes.md", Sizes.TEXT, who, at + 5_000);
    }

    @Override
    public void found(Filing filing) {
        Staffer who = filing.crew.of("seed-genomics").getFirst();
        for (String species : SPECIES) {
            filing.add("/reference/" + species, "reference.fasta", Sizes.ASSEMBLY, who, at(filing, who));
            filing.add("/reference/" + species, "genes.vcf", Sizes.ASSEMBLY, who, at(filing, who));
        }
    }

    private static long at(Filing filing, Staffer who) {
        return filing.at(Hours.workday(LocalDate.of(2022, 5, 2).plusDays(filing.random.nextInt(400))), who);
    }

    @Override
    public double opened() {
        return 0.35;
    }
}
