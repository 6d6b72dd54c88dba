package org.vastshelf.app.trace;

import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.core.audit.ChainCheck;

/**
 * Chains lines that were written: gives each the next number and the hash over the one before. One node does it at a
 * time, for as many lines as there are, so that nobody who writes a line waits for the end of the chain.
 */
@Component
public class AuditChain {

    private final AuditChainStore store;
    private final Transactions transactions;

    AuditChain(AuditChainStore store, Transactions transactions) {
        this.store = store;
        this.transactions = transactions;
    }

    @Scheduled(fixedDelay = 500)
    void regularly() {
        extend();
    }

    /** Chains all lines whose transactions have ended. */
    public void extend() {
        while (store.hasPending() && transactions.run(store::batch) == AuditChainStore.AT_ONCE) {
            Thread.onSpinWait();
        }
    }

    /** The end of the chain as it is stored. */
    public ChainCheck.Head head() {
        return store.head();
    }
}
