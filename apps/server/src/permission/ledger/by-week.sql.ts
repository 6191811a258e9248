/**
 * How many people said no in each week, in their own person, for `:since` to `:end`; a no that was taken back
 * as a mistake is none. `week` is an expression over `e.said_at`, `person` a join that narrows whose it is.
 */
export function refusalsByWeek(week: string, person: string): string {
  return `SELECT ${week} AS week,
    COUNT(DISTINCT COALESCE(e.supporter_id, -CAST(e.contact_point_id AS SIGNED))) AS n
    FROM permission_entry e ${person}
    WHERE e.organization_id = :org AND e.state = 'no' AND e.by_person = 1 AND e.taken_back_at IS NULL
      AND e.said_at >= :since AND e.said_at < :end GROUP BY week`;
}
