import type { Channel, PermissionState, Purpose } from './vocabulary';

/**
 * Which states other than Yes may be written to, per channel. Everything absent is forbidden: the strictest reading is
 * the default, and texts accept nothing but Yes whatever is written here.
 */
export interface HouseRules {
  implied: Partial<Record<Channel, readonly (Purpose | 'lists')[]>>;
  never: Partial<Record<Channel, readonly (Purpose | 'lists')[]>>;
}

/**
 * The rules a new organization starts with: implied permission serves email and post; a service message (a receipt,
 * a confirmation of what the person set going) may go by email or post to someone never asked. Our own choice,
 * stricter than CAN-SPAM (15 U.S.C. 7704), which asks for no prior agreement.
 */
export const DEFAULT_RULES: HouseRules = {
  implied: { email: ['news', 'appeals', 'volunteering', 'service', 'lists'], post: ['news', 'appeals', 'volunteering', 'service', 'lists'] },
  never: { email: ['service'], post: ['service'] },
};

/** Whether the house may write to someone in this state. Yes always, No and Asked never. */
export function mayWrite(rules: HouseRules, channel: Channel, purpose: Purpose | 'lists', state: PermissionState): boolean {
  switch (state) {
    case 'yes':
      return true;
    case 'no':
    case 'asked':
      return false;
    case 'implied':
      return channel !== 'text' && (rules.implied[channel]?.includes(purpose) ?? false);
    case 'never':
      return channel !== 'text' && (rules.never[channel]?.includes(purpose) ?? false);
  }
}
