/** The last day on which a person said something of permission themselves, from 1970-01-01; null for none. */
export const lastSaidSql = (person: string) =>
  `SELECT MAX(DATEDIFF(p.said_at, '1970-01-01')) FROM permission_entry p
    WHERE p.organization_id = :org AND p.supporter_id = ${person} AND p.by_person = 1`;

/** Who said yes by a form (`:formId`) between two moments, a day each: `supporterId`, `key`, `at`. */
export const YES_BY_FORM = `SELECT supporter_id AS supporterId,
    CONCAT('form:', DATE_FORMAT(MIN(recorded_at), '%Y-%m-%d')) AS \`key\`, MIN(recorded_at) AS at
  FROM permission_entry
  WHERE organization_id = :org AND form_id = :formId AND state = 'yes' AND supporter_id IS NOT NULL
    AND recorded_at >= :from AND recorded_at < :to
  GROUP BY supporter_id, DATE(recorded_at)`;
