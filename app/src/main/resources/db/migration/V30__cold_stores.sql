-- What signs requests to cold stores, sealed with a key that is not in the database, and what their last check said.
CREATE TABLE cold_key (
    store       VARCHAR(64)     NOT NULL,
    sealed      VARBINARY(2048) NOT NULL,
    sealed_with VARCHAR(16)     NOT NULL,
    set_by      VARCHAR(64)     NOT NULL,
    set_at      DATETIME(6)     NOT NULL,
    CONSTRAINT pk_cold_key PRIMARY KEY (store)
);
CREATE TABLE cold_check (
    store      VARCHAR(64)   NOT NULL,
    asked_by   VARCHAR(64)   NOT NULL,
    checked_at DATETIME(6)   NOT NULL,
    findings   LONGTEXT      NOT NULL,
    CONSTRAINT pk_cold_check PRIMARY KEY (store)
);
