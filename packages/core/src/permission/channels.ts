/** Kinds of contact points; a mobile takes calls and texts. */
export const ADDRESS_KINDS = ['email', 'mobile', 'post'] as const;
export type AddressKind = (typeof ADDRESS_KINDS)[number];

/** A channel that people are reached by. */
interface ChannelKind {
  /** The kind of address that it reaches people at. */
  address: AddressKind;
  /** Whether this program hands messages over on it; on others people act themselves. */
  handedOver: boolean;
  /** Whether what goes out on it stands by itself; a call is on a list made at once, or a step. */
  alone: boolean;
  /** Whether a form's yes can be confirmed at the address; a postal address can't. */
  confirmable: boolean;
}

/**
 * Channels of permission. A new one has a place here; then the compiler asks for what the rules of places say
 * of it (`PlaceRules`), and the catalog for its names.
 */
const KINDS = {
  email: { address: 'email', handedOver: true, alone: true, confirmable: true },
  text: { address: 'mobile', handedOver: true, alone: true, confirmable: true },
  call: { address: 'mobile', handedOver: false, alone: false, confirmable: true },
  post: { address: 'post', handedOver: false, alone: true, confirmable: false },
} as const satisfies Record<string, ChannelKind>;

/** A channel of permission, by its name. */
export type Channel = keyof typeof KINDS;
type ChannelWith<P> = { [C in Channel]: (typeof KINDS)[C] extends P ? C : never }[Channel];
/** A channel that this program hands messages over on. */
export type SendingChannel = ChannelWith<{ handedOver: true }>;
/** A channel that a message goes out on by itself. */
export type LoneChannel = ChannelWith<{ alone: true }>;
/** A channel for which a form's yes can be confirmed. */
export type ConfirmableChannel = ChannelWith<{ confirmable: true }>;

/** Every channel of permission. */
export const CHANNELS = Object.keys(KINDS) as Channel[];
/** Channels that this program hands messages over on. */
export const SENDING_CHANNELS = CHANNELS.filter(
  (channel): channel is SendingChannel => KINDS[channel].handedOver,
);

/** Channels that a message goes out on by itself. */
export const LONE_CHANNELS = CHANNELS.filter((channel): channel is LoneChannel => KINDS[channel].alone);

/** Whether this program hands messages over on the channel; letters are posted and calls made by people. */
export function isHandedOver(channel: Channel): channel is SendingChannel {
  return KINDS[channel].handedOver;
}

/** Whether a form's yes for the channel can be confirmed. */
export function isConfirmable(channel: Channel): channel is ConfirmableChannel {
  return KINDS[channel].confirmable;
}

/** The kind of address that a channel reaches people at. */
export const ADDRESS_KIND: Record<Channel, AddressKind> = {
  email: KINDS.email.address,
  text: KINDS.text.address,
  call: KINDS.call.address,
  post: KINDS.post.address,
};

/** The channels that a kind of address serves. */
export function channelsOf(kind: AddressKind): Channel[] {
  return CHANNELS.filter((channel) => ADDRESS_KIND[channel] === kind);
}
