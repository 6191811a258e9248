import type { Mail } from './mail';
export declare function mailsPage(mails: readonly Mail[], box: string): string;
export declare function mailPage(mail: Mail): string;
