/** What a campaign is for. */
export const CAMPAIGN_KINDS = ['appeal', 'thank-you', 'update'] as const;
export type CampaignKind = (typeof CAMPAIGN_KINDS)[number];

/** The stages that a campaign starts with; each has its own set. */
export const FIRST_STAGES = ['asked', 'thinking', 'pledged', 'gave', 'declined'];
/** Of these, those after which nobody is asked further. */
export const ENDING_STAGES: readonly string[] = ['gave', 'declined'];

/** What a campaign wants to reach: people who give, gifts, or money in minor units. */
export const GOAL_KINDS = ['people', 'gifts', 'money'] as const;
export type GoalKind = (typeof GOAL_KINDS)[number];
