-- For bench/history: the days before the demo's, eleven batches a day with 150 events each, from lots that were received, read with thermometers that were checked,
-- on days that were signed. The same every time for the same day: ids and figures come from what they are of. The board is rebuilt after it.

SET session_replication_role = replica;
SET timezone = 'UTC';

CREATE FUNCTION pg_temp.id(at TIMESTAMPTZ, of TEXT) RETURNS UUID LANGUAGE sql IMMUTABLE AS $$
    SELECT (lpad(to_hex((extract(epoch FROM at) * 1000)::bigint), 12, '0') || '7' || substr(md5(of), 1, 3) || 'a' || substr(md5(of), 4, 15))::uuid
$$;

-- The hash of a link of form 2 (docs/format/proof.md).
CREATE FUNCTION pg_temp.link(site UUID, last BYTEA, place BIGINT, kind TEXT, id UUID, recorded TIMESTAMPTZ, digest BYTEA) RETURNS BYTEA LANGUAGE sql IMMUTABLE AS $$
    SELECT sha256(last || convert_to(concat_ws(E'\n', 'verjuicer-link/2', site, place, kind, id, to_char(recorded, 'YYYY-MM-DD"T"HH24:MI:SS"Z"'), encode(digest, 'hex')), 'UTF8'))
$$;

CREATE TEMP TABLE frame AS
    SELECT s.id AS site, s.rule_set, s.timezone AS zone, (SELECT a.id FROM account a JOIN person p ON p.id = a.person_id WHERE p.login = 'mara') AS mara, (SELECT a.id FROM account a JOIN person p ON p.id = a.person_id WHERE p.login = 'ike') AS ike, (SELECT a.id FROM account a JOIN person p ON p.id = a.person_id WHERE p.login = 'dell') AS dell,
           date_trunc('day', now() AT TIME ZONE s.timezone)::date AS today
    FROM site s;
CREATE TEMP TABLE goods AS
    SELECT p.id, p.name, p.animal, p.form, row_number() OVER (ORDER BY p.name) - 1 AS n, count(*) OVER () AS many FROM product p WHERE p.name IN ('Lamb shoulder', 'Turkey breast', 'Duck', 'Beef cheek', 'Goat leg', 'Chicken, whole', 'Pork butt', 'Pork ribs', 'Beef brisket', 'Pork loin', 'House sausage');
CREATE TEMP TABLE day AS
    SELECT d, today - d AS on_day, (today - d)::timestamp AT TIME ZONE zone AS midnight FROM frame, generate_series(3, 2 + current_setting('verjuicer.days')::int) d;

-- A lot a day of each second product.
INSERT INTO lot (id, site_id, supplier_id, delivery_id, product_id, number, pieces, grams, price_cents, is_frozen, temp, thermometer, use_by, is_accepted, reason, at, recorded_at, account_id)
SELECT pg_temp.id(day.midnight, 'lot' || d || g.n), f.site, (SELECT id FROM supplier ORDER BY name OFFSET (d + g.n) % (SELECT count(*) FROM supplier) LIMIT 1), pg_temp.id(day.midnight, 'delivery' || d), g.id,
       'H' || to_char(on_day, 'YYMMDD') || '-' || g.n, 4, 10000, 8000, false, '{"f": 37.2}', 'T1', on_day + 9, true, NULL, day.midnight + interval '7 hours', day.midnight + interval '7 hours 1 minute', f.mara
FROM day, frame f, goods g WHERE (d + g.n) % 2 = 0;

INSERT INTO batch (id, site_id, tag, code, product_name, animal, form, integrity, pieces, raw_grams, is_stuffed, is_wild, has_advisory, rule_set, begun_at, begun_by_id)
SELECT pg_temp.id(day.midnight + make_interval(hours => 5, mins => 7 * g.n::int), 'batch' || d || g.n), f.site, 1 + g.n, to_char(on_day, 'YYYY-MMDD') || '-' || (1 + g.n), g.name, g.animal, g.form, 'intact', 2, 2500, false, false, false,
       f.rule_set, day.midnight + make_interval(hours => 5, mins => 7 * g.n::int), CASE g.n % 2 WHEN 0 THEN f.mara ELSE f.ike END
FROM day, frame f, goods g;

INSERT INTO batch_lot (id, batch_id, lot_id, pieces, grams)
SELECT pg_temp.id(day.midnight, 'taken' || day.d || g.n), pg_temp.id(day.midnight + make_interval(hours => 5, mins => 7 * g.n::int), 'batch' || day.d || g.n),
       pg_temp.id(at.midnight, 'lot' || at.d || g.n), 2, 5000
FROM day, goods g, LATERAL (SELECT o.d, o.midnight FROM day o WHERE o.d IN (day.d, day.d + 1) AND (o.d + g.n) % 2 = 0 LIMIT 1) at;

-- 150 events: on the pit, 120 readings as it climbs from 40 to 200 °F, a rest, 24 readings held hot, served. Every 37th batch is held too cool, every 41st has a gap.
INSERT INTO event (id, batch_id, at, recorded_at, account_id, initials, type, members)
SELECT pg_temp.id(b.begun_at + make_interval(secs => t.secs), b.code || n), b.id, b.begun_at + make_interval(secs => t.secs), b.begun_at + make_interval(secs => t.secs + 20),
       CASE n % 3 WHEN 0 THEN f.ike ELSE f.mara END, CASE n % 3 WHEN 0 THEN 'IB' ELSE 'MR' END,
       CASE n WHEN 0 THEN 'cook' WHEN 122 THEN 'rest' WHEN 124 THEN 'hot_hold' WHEN 149 THEN 'serve' ELSE 'reading' END,
       CASE n WHEN 0 THEN jsonb_build_object('oven', 'convection', 'set', '{"f": 250}'::jsonb, 'pit', CASE b.tag % 2 WHEN 0 THEN 'Drum' ELSE 'Offset' END) WHEN 122 THEN '{"method": "foil"}' WHEN 124 THEN '{"place": "cabinet"}' WHEN 149 THEN '{"weight_kg": 3.2}'
              ELSE jsonb_build_object('temp', jsonb_build_object('f', round(t.fahrenheit::numeric, 1)), 'piece', 1 + n % 2, 'spot', 'core', 'thermometer', CASE b.tag % 3 WHEN 0 THEN 'T3' ELSE 'T1' END) END
FROM frame f, (SELECT *, hashtext(code) & 1023 AS h FROM batch WHERE code ~ '^\d{4}-\d{4}-\d+$' AND begun_at < (SELECT today - 2 FROM frame)) b, generate_series(0, 149) n,
     LATERAL (SELECT CASE WHEN n <= 121 THEN n * 240 WHEN n <= 124 THEN 29040 + (n - 121) * 600 ELSE 30840 + (n - 124) * 600 + CASE WHEN b.h % 41 = 0 AND n > 135 THEN 9000 ELSE 0 END END AS secs,
                     CASE WHEN n <= 121 THEN 40 + 163 * (1 - exp(-n / 40.0)) + (b.h + n * 7) % 5 / 10.0 WHEN n <= 123 THEN 190 ELSE CASE WHEN b.h % 37 = 0 AND n > 140 THEN 131 ELSE 152 END - (n - 124) * 0.2 + (b.h + n) % 4 / 10.0 END AS fahrenheit) t
ORDER BY b.begun_at, b.tag, n;

INSERT INTO thermometer_check (id, thermometer_id, at, recorded_at, account_id, method, expected, read, outcome)
SELECT pg_temp.id(midnight, 'check' || d || t.label), t.id, midnight + interval '5 hours', midnight + interval '5 hours 1 minute', f.mara, 'ice', '{"f": 32}', jsonb_build_object('f', 32 + (d % 7 - 3) / 10.0), 'kept'
FROM day, frame f, thermometer t ORDER BY d DESC, t.label;

INSERT INTO site_event (id, site_id, subject, subject_id, at, recorded_at, account_id, initials, type, members)
SELECT pg_temp.id(midnight, 'pit' || d || p.name || n), f.site, 'pit', p.id, midnight + make_interval(hours => 4 + n), midnight + make_interval(hours => 4 + n), f.mara, 'MR', 'reading', jsonb_build_object('temp', jsonb_build_object('f', 245 + (d + n) % 11))
FROM day, frame f, pit p, generate_series(1, 10) n ORDER BY d DESC, n;

-- The chain anew over all of it, as it would have been made at the time, by the application's own canonical form: what the demo had linked, what was made above,
-- and a signature under every day the evening after. Days are closed anew by the first write.
CREATE TEMP TABLE linked AS
    SELECT kind, row_id AS id, recorded_at AS recorded, position AS seq FROM chain_link WHERE kind <> 'day_close';
TRUNCATE chain_link, day_close;
INSERT INTO linked SELECT t.* FROM (
    SELECT 'batch' AS kind, id, begun_at AS recorded, 0 AS seq FROM batch
    UNION ALL SELECT 'lot', id, recorded_at, 0 FROM lot
    UNION ALL SELECT 'batch_lot', l.id, b.begun_at, 0 FROM batch_lot l JOIN batch b ON b.id = l.batch_id
    UNION ALL SELECT 'site_event', id, recorded_at, seq FROM site_event
    UNION ALL SELECT 'event', id, recorded_at, seq FROM event
    UNION ALL SELECT 'thermometer_check', id, recorded_at, seq FROM thermometer_check
) t LEFT JOIN linked l USING (kind, id) WHERE l.id IS NULL;
DO $$
DECLARE r RECORD; f RECORD; place BIGINT := 0; last BYTEA := ''; signed DATE; of_day DATE; sign UUID; digest BYTEA;
BEGIN
    SELECT * INTO f FROM frame;
    FOR r IN SELECT * FROM linked ORDER BY recorded, kind, seq, id LOOP
        of_day := (r.recorded AT TIME ZONE f.zone)::date;
        IF signed IS NOT NULL AND of_day > signed AND signed <= f.today - 3 THEN
            sign := pg_temp.id(r.recorded, 'sign' || signed);
            INSERT INTO day_sign (id, site_id, day, at, account_id, initials, position, digest, reasons)
                VALUES (sign, f.site, signed, r.recorded, f.dell, 'DF', place, encode(last, 'hex'), '{}');
            place := place + 1;
            digest := sha256(convert_to(chain_canonical('day_sign', sign), 'UTF8'));
            last := pg_temp.link(f.site, last, place, 'day_sign', sign, r.recorded, digest);
            INSERT INTO chain_link VALUES (f.site, place, 'day_sign', sign, r.recorded, last, 2, digest);
        END IF;
        signed := of_day;
        place := place + 1;
        digest := sha256(convert_to(chain_canonical(r.kind, r.id), 'UTF8'));
        last := pg_temp.link(f.site, last, place, r.kind, r.id, r.recorded, digest);
        INSERT INTO chain_link VALUES (f.site, place, r.kind, r.id, r.recorded, last, 2, digest);
    END LOOP;
END
$$;
