-- For bench/pages: 60 open batches of 200 events, and no others. What the board reads is made anew after it.

INSERT INTO batch (id, site_id, tag, code, product_name, animal, form, integrity, pieces, raw_grams, is_stuffed, is_wild, has_advisory, rule_set, begun_at, begun_by_id)
SELECT gen_random_uuid(), s.id, 100 + n, 'bench-' || n, 'Lamb shoulder', 'lamb', 'roast', 'intact', 2, 2300, false, false, false, s.rule_set, now(), a.id
FROM site s, (SELECT a.id FROM account a JOIN person p ON p.id = a.person_id WHERE p.login = 'mara') a, generate_series(1, 60) n;

INSERT INTO event (id, batch_id, at, recorded_at, account_id, initials, type, members)
SELECT gen_random_uuid(), b.id, now() - make_interval(mins => 600 - 3 * n), now(), b.begun_by_id, 'MR',
       CASE n WHEN 0 THEN 'cook' WHEN 130 THEN 'rest' WHEN 150 THEN 'cool' ELSE 'reading' END,
       CASE WHEN n IN (0, 130, 150) THEN '{}'::jsonb ELSE jsonb_build_object('temp', jsonb_build_object('f', CASE WHEN n < 140 THEN 60 + n ELSE 340 - n - n / 2 END), 'piece', 1 + n % 2, 'spot', 'core', 'thermometer', 'T1') END
FROM batch b, generate_series(0, 199) n WHERE b.code LIKE 'bench-%' ORDER BY b.tag, n;

DELETE FROM open_tag;
INSERT INTO open_tag (site_id, tag, batch_id) SELECT site_id, tag, id FROM batch WHERE code LIKE 'bench-%';
