/** What a campaign is for. */
export const CAMPAIGN_KINDS = ['appeal', 'thank-you', 'update'] as const;
export type CampaignKind = (typeof CAMPAIGN_KINDS)[number];

/** The stages that a campaign starts with; each has its own set. */
export const FIRST_STAGES = ['asked', 'thinking', 'pledged', 'gave', 'declined'];
