import type { Mail } from './mail';
/** A delivery status notification for a mailbox that does not exist (RFC 3461 to 3464), with the headers that came. */
export declare function deliveryStatusMail(mail: Pick<Mail, 'to' | 'returnPath' | 'raw'>): string;
