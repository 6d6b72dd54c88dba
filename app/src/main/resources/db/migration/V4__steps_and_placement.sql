-- Steps on pools say what they change instead of what the pool was and will be; old ones are kept as what was done.
-- [jooq ignore start]
UPDATE order_step
SET body = JSON_OBJECT('step', 'Work', 'title', JSON_VALUE(body, '$.title'), 'expected', JSON_EXTRACT(body, '$.expected'))
WHERE JSON_VALUE(body, '$.step') = 'ChangePool' AND NOT JSON_EXISTS(body, '$.edit');
-- [jooq ignore stop]
