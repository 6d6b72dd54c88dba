-- [jooq ignore start]
ALTER DATABASE CHARACTER SET utf8mb4 COLLATE utf8mb4_bin;
-- [jooq ignore stop]

-- The estate is small, read whole and replaced by differences: one document for each thing in it.
CREATE TABLE estate_object (
    kind VARCHAR(16)  NOT NULL,
    name VARCHAR(500) NOT NULL,
    body LONGTEXT     NOT NULL,
    CONSTRAINT pk_estate_object PRIMARY KEY (kind, name)
);

-- One row; locked while the estate is changed.
CREATE TABLE estate_version (
    id      INT    NOT NULL,
    version BIGINT NOT NULL,
    CONSTRAINT pk_estate_version PRIMARY KEY (id)
);
INSERT INTO estate_version (id, version) VALUES (1, 1);

CREATE TABLE volume_usage (
    volume         VARCHAR(40) NOT NULL,
    live_bytes     BIGINT      NOT NULL,
    snapshot_bytes BIGINT      NOT NULL,
    CONSTRAINT pk_volume_usage PRIMARY KEY (volume)
);

CREATE TABLE account_state (
    rule_key    VARCHAR(500)  NOT NULL,
    folder_hash CHAR(64)      NOT NULL,
    grace_since DATETIME(6)   NULL,
    fired       VARCHAR(40)   NOT NULL,
    CONSTRAINT pk_account_state PRIMARY KEY (rule_key, folder_hash)
);

CREATE TABLE shelf_order (
    id           BIGINT        NOT NULL AUTO_INCREMENT,
    author       VARCHAR(64)   NOT NULL,
    state        VARCHAR(16)   NOT NULL,
    created_at   DATETIME(6)   NOT NULL,
    started_at   DATETIME(6)   NULL,
    finished_at  DATETIME(6)   NULL,
    confirmed    LONGTEXT      NOT NULL,
    outcome      VARCHAR(2000) NOT NULL,
    CONSTRAINT pk_shelf_order PRIMARY KEY (id)
);
CREATE INDEX shelf_order_state ON shelf_order (state, id);

CREATE TABLE order_change (
    order_id BIGINT   NOT NULL,
    position INT      NOT NULL,
    struck   INT      NOT NULL,
    body     LONGTEXT NOT NULL,
    CONSTRAINT pk_order_change PRIMARY KEY (order_id, position)
);

-- The journal: a step's state is written before and after it acts.
CREATE TABLE order_step (
    order_id    BIGINT      NOT NULL,
    position    INT         NOT NULL,
    state       VARCHAR(16) NOT NULL,
    started_at  DATETIME(6) NULL,
    due_at      DATETIME(6) NULL,
    finished_at DATETIME(6) NULL,
    body        LONGTEXT    NOT NULL,
    CONSTRAINT pk_order_step PRIMARY KEY (order_id, position)
);

CREATE TABLE audit_line (
    number    BIGINT          NOT NULL,
    at        DATETIME(6)     NOT NULL,
    person    VARCHAR(64)     NOT NULL,
    client    VARCHAR(64)     NOT NULL,
    share     VARCHAR(64)     NOT NULL,
    operation VARCHAR(16)     NOT NULL,
    path      VARBINARY(4096) NOT NULL,
    bytes     BIGINT          NOT NULL,
    verdict   VARCHAR(10)     NOT NULL,
    reason    VARCHAR(1000)   NOT NULL,
    hash      VARBINARY(32)   NOT NULL,
    CONSTRAINT pk_audit_line PRIMARY KEY (number)
);
CREATE INDEX audit_line_person ON audit_line (person, number);
CREATE INDEX audit_line_share ON audit_line (share, number);
CREATE INDEX audit_line_verdict ON audit_line (verdict, operation, number);

-- One row: the end of the chain; locked while lines are added.
CREATE TABLE audit_head (
    id     INT           NOT NULL,
    number BIGINT        NOT NULL,
    hash   VARBINARY(32) NOT NULL,
    CONSTRAINT pk_audit_head PRIMARY KEY (id)
);

CREATE TABLE space_history (
    kind       VARCHAR(8)  NOT NULL,
    space      VARCHAR(40) NOT NULL,
    day        DATE        NOT NULL,
    used_bytes BIGINT      NOT NULL,
    CONSTRAINT pk_space_history PRIMARY KEY (kind, space, day)
);

CREATE TABLE preference (
    person VARCHAR(64) NOT NULL,
    units  VARCHAR(10) NOT NULL,
    theme  VARCHAR(10) NOT NULL,
    CONSTRAINT pk_preference PRIMARY KEY (person)
);

CREATE TABLE demo_clock (
    id            INT    NOT NULL,
    offset_micros BIGINT NOT NULL,
    CONSTRAINT pk_demo_clock PRIMARY KEY (id)
);

-- One inventory of files: of a share, or of a folder that was brought in.
CREATE TABLE catalogue (
    no           INT           NOT NULL AUTO_INCREMENT,
    name         VARCHAR(64)   NOT NULL,
    source       VARCHAR(10)   NOT NULL,
    root         VARCHAR(4000) NOT NULL,
    state        VARCHAR(10)   NOT NULL,
    next_folder  INT           NOT NULL,
    scanned_upto INT           NOT NULL,
    files        BIGINT        NOT NULL,
    bytes        BIGINT        NOT NULL,
    unreadable   BIGINT        NOT NULL,
    millis       BIGINT        NOT NULL,
    CONSTRAINT pk_catalogue PRIMARY KEY (no),
    CONSTRAINT uk_catalogue_name UNIQUE (name)
);

-- Folders are numbered breadth first, so that "all up to this number are scanned" is the whole state of a scan.
-- The sums are of all that lies below.
CREATE TABLE folder (
    catalogue_no  INT             NOT NULL,
    no            INT             NOT NULL,
    parent_no     INT             NOT NULL,
    depth         INT             NOT NULL,
    path_hash     VARBINARY(16)   NOT NULL,
    path          VARBINARY(8192) NOT NULL,
    sum_files     BIGINT          NOT NULL,
    sum_bytes     BIGINT          NOT NULL,
    sum_allocated BIGINT          NOT NULL,
    CONSTRAINT pk_folder PRIMARY KEY (catalogue_no, no)
);
CREATE INDEX folder_by_hash ON folder (catalogue_no, path_hash);
CREATE INDEX folder_by_parent ON folder (catalogue_no, parent_no);
CREATE INDEX folder_by_size ON folder (catalogue_no, sum_bytes);

CREATE TABLE file (
    catalogue_no INT            NOT NULL,
    folder_no    INT            NOT NULL,
    name         VARBINARY(255) NOT NULL,
    bytes        BIGINT         NOT NULL,
    allocated    BIGINT         NOT NULL,
    owner        VARCHAR(64)    NOT NULL,
    owner_group  VARCHAR(64)    NOT NULL,
    modified_at  BIGINT         NOT NULL,
    accessed_at  BIGINT         NOT NULL,
    changed_at   BIGINT         NOT NULL,
    kind         INT            NOT NULL,
    counted      INT            NOT NULL,
    CONSTRAINT pk_file PRIMARY KEY (catalogue_no, folder_no, name)
);
CREATE INDEX file_by_size ON file (catalogue_no, bytes);

-- Roll-up of the files that lie directly in a folder; month counts from year 0.
CREATE TABLE tally (
    catalogue_no INT         NOT NULL,
    folder_no    INT         NOT NULL,
    month        INT         NOT NULL,
    size_class   INT         NOT NULL,
    kind         INT         NOT NULL,
    owner        VARCHAR(64) NOT NULL,
    files        BIGINT      NOT NULL,
    bytes        BIGINT      NOT NULL,
    allocated    BIGINT      NOT NULL,
    CONSTRAINT pk_tally PRIMARY KEY (catalogue_no, folder_no, month, size_class, kind, owner)
);

CREATE TABLE hard_link (
    catalogue_no INT    NOT NULL,
    device       BIGINT NOT NULL,
    inode        BIGINT NOT NULL,
    CONSTRAINT pk_hard_link PRIMARY KEY (catalogue_no, device, inode)
);

CREATE TABLE unreadable (
    id           BIGINT          NOT NULL AUTO_INCREMENT,
    catalogue_no INT             NOT NULL,
    path         VARBINARY(8192) NOT NULL,
    reason       VARCHAR(200)    NOT NULL,
    CONSTRAINT pk_unreadable PRIMARY KEY (id)
);
CREATE INDEX unreadable_by_catalogue ON unreadable (catalogue_no, id);
