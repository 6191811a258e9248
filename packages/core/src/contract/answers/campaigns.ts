import { CAMPAIGN_KINDS } from '../../campaigns';
import { shape, number, text, oneOf, orNull, listOf, flag, told, mapOf } from '../kinds';

/** A campaign with how many people are at each of its stages. */
export const campaignView = shape('CampaignView', {
  id: number,
  version: number,
  name: text,
  kind: oneOf(CAMPAIGN_KINDS),
  appealCode: orNull(text),
  stages: listOf(text),
  isOpen: flag,
  madeAt: text,
  madeBy: text,
  people: number,
  counts: told('People at each stage.', mapOf(number)),
});

/** One person on a roster: the stage, since when, and who put them there. */
export const rosterRow = shape('RosterRow', {
  supporterId: number,
  firstName: text,
  lastName: text,
  stage: text,
  putAt: text,
  by: text,
});
