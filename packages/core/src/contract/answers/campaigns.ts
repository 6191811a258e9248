import { CAMPAIGN_KINDS, FALL_CAUSES, FALLS, GOAL_KINDS } from '../../campaigns';
import { CHANNELS, SUPPRESSION_REASONS } from '../../permission';
import { MESSAGE_STATES } from '../messages';
import { ruleTree } from '../segments';
import { lastLook } from './messages';
import { shape, number, text, oneOf, orNull, listOf, flag, told, mapOf, part } from '../kinds';

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

/** What a campaign wants to reach. */
export const campaignGoal = shape('CampaignGoal', {
  kind: oneOf(GOAL_KINDS),
  amount: told('People, gifts, or minor units of money.', number),
  by: told('Until which day.', orNull(text)),
});

/** A step of a campaign: its message, when it leaves, and for whom of the roster. */
export const stepView = shape('StepView', {
  messageId: number,
  version: told('Of its time and of whom it is for.', number),
  name: text,
  channel: oneOf(CHANNELS),
  state: oneOf(MESSAGE_STATES),
  day: told('Days after the first one of the campaign.', number),
  minutes: told('After midnight.', number),
  ownTime: told('By the clock of whoever gets it.', flag),
  at: told("When it leaves by the house's clock; null without a first day.", orNull(text)),
  rule: told('Whom of the roster it is for; null for everybody.', orNull(ruleTree)),
  words: told('That in words; empty for everybody.', text),
  isReady: told('Its words are in order and were tested.', flag),
  went: told('To how many it has gone.', number),
});

/** How a campaign is to go: its steps in their order, and for whom it is over when. */
export const campaignPlan = shape('CampaignPlan', {
  version: number,
  firstDay: orNull(text),
  goal: orNull(campaignGoal),
  reached: told('Of the goal, by gifts since the first day or with the code.', number),
  endsFor: listOf(oneOf(FALL_CAUSES)),
  endsAt: told('Stages at which somebody is asked no further.', listOf(text)),
  joinsFrom: told('The segment whose people come onto the roster by themselves.', orNull(number)),
  steps: listOf(stepView),
});

/** What one step would come to, as of now. */
export const stepExpected = shape('StepExpected', {
  messageId: number,
  group: number,
  reached: number,
  suppressed: listOf(part({ reason: oneOf(SUPPRESSION_REASONS), people: number })),
});

/** What a campaign would come to as of now, over the steps that have not left. */
export const campaignExpected = shape('CampaignExpected', {
  steps: listOf(stepExpected),
  gets: told('How many people get none of these, one, two and so on.', listOf(number)),
});

/** The last look at all steps that are not set going. */
export const campaignLook = shape('CampaignLook', {
  steps: listOf(part({ messageId: number, look: lastLook })),
  gets: told('How many people get none of all that have not left, one, two and so on.', listOf(number)),
});

/** How a campaign reaches one person. */
export const pathStep = shape('PathStep', {
  messageId: number,
  at: orNull(text),
  came: told('What became of it, where it has gone to them or was held back.', orNull(text)),
  verdict: orNull(oneOf(['send', 'not-meant', ...SUPPRESSION_REASONS])),
  fall: told('Why they are out of the campaign.', orNull(oneOf(FALLS))),
  words: text,
});
