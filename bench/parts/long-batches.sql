-- For bench/long: three batches on the heat that were read 20, 2,000 and 20,000 times, the last of them every five
-- seconds for 28 hours, by one probe in each of two pieces. What the board reads is made anew after it.

INSERT INTO batch (id, site_id, tag, code, product_name, animal, form, integrity, pieces, raw_grams, is_stuffed, is_wild, has_advisory, rule_set, begun_at, begun_by_id)
SELECT gen_random_uuid(), s.id, 700 + n.place, 'long-' || n.readings, 'Lamb shoulder', 'lamb', 'roast', 'intact', 2, 2300, false, false, false, s.rule_set, now() - interval '30 hours', a.id
FROM site s, (SELECT a.id FROM account a JOIN person p ON p.id = a.person_id WHERE p.login = 'mara') a,
     (VALUES (1, 20), (2, 2000), (3, 20000)) n (place, readings);

INSERT INTO event (id, batch_id, at, recorded_at, account_id, initials, type, members)
SELECT gen_random_uuid(), b.id, now() - make_interval(secs => 30 + (c.readings - n) * c.step), now() - make_interval(secs => 29 + (c.readings - n) * c.step), b.begun_by_id, 'MR',
       CASE n WHEN 0 THEN 'cook' ELSE 'reading' END,
       CASE n WHEN 0 THEN '{"pit": "Drum"}'::jsonb ELSE jsonb_build_object('temp', jsonb_build_object('f', round((40 + 160 * (1 - exp(-3.0 * n / c.readings)) + (n * 7919 % 11) / 10.0)::numeric, 1)), 'piece', 1 + n % 2, 'spot', 'core', 'thermometer', 'T1') END
FROM batch b
JOIN (VALUES ('long-20', 20, 900), ('long-2000', 2000, 30), ('long-20000', 20000, 5)) c (code, readings, step) ON c.code = b.code,
     LATERAL generate_series(0, c.readings) n
ORDER BY b.tag, n;

INSERT INTO open_tag (site_id, tag, batch_id) SELECT site_id, tag, id FROM batch WHERE code LIKE 'long-%';

-- As a kitchen's database does by itself within a minute.
ANALYZE;
