package org.vastshelf.core.estate;

import java.util.List;

/** All kinds of things that an estate is made of. A new one is declared here, and nowhere else. */
public final class Kinds {

    public static final Kind<Site> SITE = Kind.of("site", "sites", Site.class, Site::name);
    public static final Kind<FileServer> SERVER = Kind.of("server", "servers", FileServer.class, FileServer::name);
    public static final Kind<Enclosure> ENCLOSURE = Kind.of("enclosure", "enclosures", Enclosure.class, Enclosure::key);
    public static final Kind<Drive> DRIVE = Kind.of("drive", "drives", Drive.class, Drive::key);
    public static final Kind<Pool> POOL = Kind.of("pool", "pools", Pool.class, Pool::name);
    public static final Kind<Volume> VOLUME = Kind.of("volume", "volumes", Volume.class, Volume::name);
    public static final Kind<Share> SHARE = Kind.of("share", "shares", Share.class, Share::name);
    public static final Kind<LimitRule> LIMIT = Kind.of("limit", "limits", LimitRule.class, LimitRule::key);
    public static final Kind<GrowthRule> GROWTH =
            Kind.of("growth rule", "growthRules", GrowthRule.class, GrowthRule::governs);
    public static final Kind<LiftRule> LIFT = Kind.of("lift rule", "liftRules", LiftRule.class, LiftRule::governs);
    public static final Kind<ScrubRule> SCRUBBING =
            Kind.of("scrub rule", "scrubRules", ScrubRule.class, ScrubRule::governs);
    public static final Kind<SnapshotRule> SNAPSHOTTING =
            Kind.of("snapshot rule", "snapshotRules", SnapshotRule.class, SnapshotRule::governs);
    public static final Kind<ReserveRule> RESERVE =
            Kind.of("snapshot reserve", "reserves", ReserveRule.class, ReserveRule::governs);
    public static final Kind<PoolReserveRule> POOL_RESERVE =
            Kind.of("snapshot room", "poolReserves", PoolReserveRule.class, PoolReserveRule::governs);
    public static final Kind<PoolPrice> POOL_PRICE =
            Kind.of("pool price", "poolPrices", PoolPrice.class, PoolPrice::governs);
    public static final Kind<ProtectionGoal> GOAL =
            Kind.of("protection goal", "protectionGoals", ProtectionGoal.class, ProtectionGoal::governs);
    public static final Kind<RetentionRule> RETENTION =
            Kind.of("retention rule", "retentionRules", RetentionRule.class, RetentionRule::key);
    public static final Kind<LegalTag> LEGAL_TAG =
            Kind.passing("legal tag", "legalTags", LegalTag.class, LegalTag::key);
    public static final Kind<Link> LINK = Kind.of("link", "links", Link.class, Link::key);
    public static final Kind<ReplicaPair> PAIR =
            Kind.of("replica pair", "replicaPairs", ReplicaPair.class, ReplicaPair::volume);
    public static final Kind<RehearsalRule> REHEARSAL =
            Kind.of("rehearsal rule", "rehearsalRules", RehearsalRule.class, RehearsalRule::governs);
    public static final Kind<CloneOf> CLONE = Kind.passing("clone", "clones", CloneOf.class, CloneOf::volume);
    public static final Kind<ColdStore> COLD_STORE =
            Kind.of("cold store", "coldStores", ColdStore.class, ColdStore::name);
    public static final Kind<TieringRule> TIERING =
            Kind.of("tiering rule", "tieringRules", TieringRule.class, TieringRule::name);
    public static final Kind<SavingRule> SAVING =
            Kind.of("saving rule", "savingRules", SavingRule.class, SavingRule::governs);
    public static final Kind<Rebuild> REBUILD = Kind.of("rebuild", "rebuilds", Rebuild.class, Rebuild::target);
    public static final Kind<Scrub> SCRUB = Kind.of("scrub", "scrubs", Scrub.class, Scrub::pool);
    public static final Kind<Arrival> ARRIVAL = Kind.passing("arrival", "arrivals", Arrival.class, Arrival::key);
    public static final Kind<Hold> HOLD = Kind.passing("hold", "holds", Hold.class, Hold::key);

    /** In the order in which they can be made: what a thing needs comes before it. */
    public static final List<Kind<?>> ALL = List.of(
            SITE,
            SERVER,
            ENCLOSURE,
            DRIVE,
            POOL,
            VOLUME,
            SHARE,
            LIMIT,
            GROWTH,
            LIFT,
            SCRUBBING,
            SNAPSHOTTING,
            RESERVE,
            POOL_RESERVE,
            POOL_PRICE,
            GOAL,
            RETENTION,
            LEGAL_TAG,
            LINK,
            PAIR,
            REHEARSAL,
            CLONE,
            COLD_STORE,
            TIERING,
            SAVING,
            REBUILD,
            SCRUB,
            ARRIVAL,
            HOLD);

    /** Kinds of rules about what happens by itself. */
    public static final List<Kind<? extends Rule>> RULES =
            List.of(GROWTH, LIFT, SCRUBBING, SNAPSHOTTING, RESERVE, POOL_RESERVE, POOL_PRICE, GOAL, REHEARSAL, SAVING);

    private Kinds() {}
}
