-- The next of many audit lines that wait for their numbers is found without looking at all of them.
CREATE INDEX audit_pending_at ON audit_pending (at, receipt);
