-- What is expected is kept for ten years, so that suppositions and orders need no new forecast.
DELETE FROM forecast;
ALTER TABLE forecast DROP COLUMN band;
ALTER TABLE forecast ADD COLUMN course MEDIUMTEXT NOT NULL;
ALTER TABLE forecast MODIFY space VARCHAR(64) NOT NULL;

-- What each account of a limit held at the end of a day.
CREATE TABLE account_history (
    rule_hash   VARBINARY(16) NOT NULL,
    holder_hash VARBINARY(16) NOT NULL,
    day         DATE          NOT NULL,
    used_bytes  BIGINT        NOT NULL,
    CONSTRAINT pk_account_history PRIMARY KEY (rule_hash, holder_hash, day)
);

-- What was expected some days ahead, to be held against what then happened. What nobody forecast at the time was worked out
-- afterwards, from the history as it was then.
CREATE TABLE forecast_past (
    kind           VARCHAR(8)  NOT NULL,
    space          VARCHAR(64) NOT NULL,
    made           DATE        NOT NULL,
    ahead          INT         NOT NULL,
    afterwards     INT         NOT NULL,
    capacity_bytes BIGINT      NOT NULL,
    likely         DATE        NULL,
    low            BIGINT      NOT NULL,
    middle         BIGINT      NOT NULL,
    high           BIGINT      NOT NULL,
    CONSTRAINT pk_forecast_past PRIMARY KEY (kind, space, made, ahead)
);

-- What somebody supposed of a space, with what followed from it then.
CREATE TABLE supposition (
    kind   VARCHAR(8)   NOT NULL,
    space  VARCHAR(64)  NOT NULL,
    name   VARCHAR(80)  NOT NULL,
    author VARCHAR(64)  NOT NULL,
    made   DATE         NOT NULL,
    asked  VARCHAR(4000) NOT NULL,
    course MEDIUMTEXT   NOT NULL,
    CONSTRAINT pk_supposition PRIMARY KEY (kind, space, name)
);

-- How hardware, or room of a service, is bought for a file server.
CREATE TABLE order_terms (
    server       VARCHAR(40) NOT NULL,
    lead_days    INT         NOT NULL,
    lot_bytes    BIGINT      NOT NULL,
    risk_percent INT         NOT NULL,
    CONSTRAINT pk_order_terms PRIMARY KEY (server)
);

-- Dates that are others than a week before, with what made them so.
CREATE TABLE forecast_moved (
    kind   VARCHAR(8)    NOT NULL,
    space  VARCHAR(64)   NOT NULL,
    day    DATE          NOT NULL,
    was    DATE          NULL,
    likely DATE          NULL,
    cause  VARCHAR(8)    NOT NULL,
    since  DATE          NULL,
    bytes  BIGINT        NOT NULL,
    folder VARBINARY(8192) NOT NULL,
    CONSTRAINT pk_forecast_moved PRIMARY KEY (kind, space)
);
