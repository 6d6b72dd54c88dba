package org.vastshelf.core.estate;

import org.vastshelf.core.unit.Bytes;

/**
 * Room of a pool that is for the snapshots of its thin volumes; thick ones have theirs.
 *
 * @param bytes at least 1 MiB; files of thin volumes can't take it
 * @param full what happens when snapshots hold more
 */
public record PoolReserveRule(String pool, Bytes bytes, ReserveRule.Full full) implements Rule {

    public PoolReserveRule {
        ReserveRule.requireSize(bytes);
    }

    @Override
    public Kind<PoolReserveRule> kind() {
        return Kinds.POOL_RESERVE;
    }

    @Override
    public Kind<?> subject() {
        return Kinds.POOL;
    }

    @Override
    public String governs() {
        return pool;
    }

    @Override
    public PoolReserveRule governing(String other) {
        return new PoolReserveRule(other, bytes, full);
    }

    @Override
    public String title() {
        return "Keep " + bytes.value() + " bytes of pool " + pool + " for snapshots; when that is full, "
                + full.title();
    }
}
