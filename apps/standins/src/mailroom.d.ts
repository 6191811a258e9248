import type { Mail } from './mail';
/**
 * How the room behaves. Addresses say it by how they begin (refuse…, defer…, bounce…, opens…, follows…); the chances are
 * for all others.
 */
export interface Settings {
  seed: string;
  openChance: number;
  followChance: number;
  bounceChance: number;
  /** Milliseconds before a mail is answered with 250. */
  delay: number;
}
export interface MailroomOptions {
  smtpPort: number;
  httpPort: number;
  /** Where mail to return paths is taken in. */
  bounceHost: string;
  bouncePort: number;
  settings?: Partial<Settings>;
}
/** Simulates the mail world: takes mail for anybody, keeps it in mailboxes, and does what readers and servers do. */
export declare class Mailroom {
  private readonly options;
  readonly mails: Mail[];
  readonly settings: Settings;
  private readonly deferred;
  private readonly smtp;
  private readonly http;
  private next;
  constructor(options: MailroomOptions);
  close(): Promise<void>;
  private refusal;
  private take;
  /** What happens to a mail after it has arrived, a moment later. */
  private react;
  /** Sends a delivery status notification to the mail's return path. */
  bounce(mail: Mail): Promise<void>;
  /** What a reader does beside the mail itself: writes back, mails the address to leave by, calls it spam. */
  writeBack(
    mail: Mail,
    letter: {
      to: string;
      raw: string;
    } | null,
  ): Promise<void>;
  /** Gives a mail to the server of the sender's lists, trying again while it is away. */
  private post;
  /** Loads the pictures, as a mail reader does. */
  open(mail: Mail): Promise<void>;
  /** Follows the nth link of the letter, leaving out the way out; goes no further than its redirect. */
  follow(mail: Mail, nth: number): Promise<void>;
  /** The one-click way out of RFC 8058: a POST to the address in the header, with its one body. */
  oneClick(mail: Mail): Promise<number>;
  private app;
}
