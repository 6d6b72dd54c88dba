-- What somebody was told; sent_at is empty until a mail server has taken it.
CREATE TABLE notice (
    id        BIGINT       NOT NULL AUTO_INCREMENT,
    at        DATETIME(6)  NOT NULL,
    recipient VARCHAR(64)  NOT NULL,
    subject   VARCHAR(200) NOT NULL,
    body      LONGTEXT     NOT NULL,
    sent_at   DATETIME(6)  NULL,
    problem   VARCHAR(500) NOT NULL,
    CONSTRAINT pk_notice PRIMARY KEY (id)
);
CREATE INDEX notice_unsent ON notice (sent_at, id);
