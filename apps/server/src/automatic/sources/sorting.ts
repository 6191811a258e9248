import { foundBy, standingBy, type CauseSource } from './source';

/** A tag is put on somebody, by anybody or by one teammate. */
export const tagSource: CauseSource<'tag'> = {
  found: (db, { tagId, by }, { from, to }) =>
    foundBy(
      db,
      `SELECT t.supporter_id AS supporterId, CONCAT('tag:', UNIX_TIMESTAMP(t.added_at)) AS \`key\`,
          t.added_at AS at
        FROM supporter_tag t
        WHERE t.organization_id = :org AND t.tag_id = :tagId AND t.added_at >= :from AND t.added_at < :to
          AND (:by IS NULL OR t.added_by = :by)`,
      { tagId, by, from, to },
    ),
  standing: (db, { tagId }, some) =>
    standingBy(
      db,
      `SELECT v.id
        FROM automation_visit v
        JOIN supporter_tag t ON t.supporter_id = v.supporter_id AND t.tag_id = :tagId
        WHERE v.organization_id = :org AND v.id IN (:ids)`,
      { tagId, ids: some.map(({ id }) => id) },
    ),
};

/** Somebody comes to a stage of a campaign. */
export const stageSource: CauseSource<'stage'> = {
  found: (db, { campaignId, stage }, { from, to }) =>
    foundBy(
      db,
      `SELECT r.supporter_id AS supporterId, CONCAT('stage:', UNIX_TIMESTAMP(r.put_at)) AS \`key\`,
          r.put_at AS at
        FROM roster r
        WHERE r.organization_id = :org AND r.campaign_id = :campaignId AND r.stage = :stage
          AND r.put_at >= :from AND r.put_at < :to`,
      { campaignId, stage, from, to },
    ),
  standing: (db, { campaignId, stage }, some) =>
    standingBy(
      db,
      `SELECT v.id
        FROM automation_visit v
        JOIN roster r ON r.supporter_id = v.supporter_id AND r.campaign_id = :campaignId AND r.stage = :stage
        WHERE v.organization_id = :org AND v.id IN (:ids)`,
      { campaignId, stage, ids: some.map(({ id }) => id) },
    ),
};
