import { Worker } from 'node:worker_threads';

/** A mail as far as anything here looks at it. */
export interface ReadMail {
  text: string;
  html: string;
  subject: string;
  messageId: string | null;
  from: string;
  headers: ReadonlyMap<string, unknown>;
  attachments: { filename: string; contentType: string; content: Buffer }[];
}

/**
 * Bounds of one mail. RFC 5321 sets least values for each (4.5.3.1); these lie far above what people send.
 */
export const MAIL_LIMITS = {
  bytes: 10 * 1024 * 1024,
  headerBytes: 64 * 1024,
  headerLines: 1000,
  parts: 200,
  recipients: 20,
} as const;
/** Milliseconds that reading one mail may take. */
const PATIENCE_MS = 10_000;

/** Why a mail is not read; null where it may be. Looks at each byte once. */
export function mailFault(raw: Buffer): string | null {
  if (raw.length > MAIL_LIMITS.bytes) return `It is larger than ${MAIL_LIMITS.bytes} bytes`;
  let headerEnd = -1;
  let [lines, parts] = [0, 0];
  for (let at = 0; at < raw.length; at++) {
    if (raw[at] !== 10) continue;
    const next = raw[at + 1] === 13 ? raw[at + 2] : raw[at + 1];
    if (headerEnd < 0) {
      lines += 1;
      if (next === 10) headerEnd = at;
    } else if (raw[at + 1] === 45 && raw[at + 2] === 45) parts += 1;
  }
  if (lines > MAIL_LIMITS.headerLines || (headerEnd < 0 ? raw.length : headerEnd) > MAIL_LIMITS.headerBytes)
    return 'Its header is too long';
  return parts > MAIL_LIMITS.parts ? 'It has too many parts' : null;
}

/**
 * In a thread of its own, given by words: a reader that goes round in circles is ended, and nothing waits for
 * it.
 */
const READER = `
const { parentPort, workerData } = require('node:worker_threads');
const { simpleParser } = require(workerData);
parentPort.on('message', async ({ id, raw }) => {
  try {
    const mail = await simpleParser(Buffer.from(raw), { keepDeliveryStatus: true, skipImageLinks: true });
    const plain = (value) => (typeof value === 'object' && value !== null && 'value' in value ? { value: String(value.value) } : String(value));
    parentPort.postMessage({ id, mail: {
      text: mail.text ?? '',
      html: mail.html || '',
      subject: mail.subject ?? '',
      messageId: mail.messageId ?? null,
      from: mail.from?.value[0]?.address ?? '',
      headers: new Map([...mail.headers].map(([name, value]) => [name, plain(value)])),
      attachments: mail.attachments.map(({ filename, contentType, content }) => ({
        filename: filename ?? '', contentType, content,
      })),
    } });
  } catch {
    parentPort.postMessage({ id, mail: null });
  }
});
`;

interface Asked {
  id: number;
  done(mail: ReadMail): void;
  failed(why: Error): void;
  timer: NodeJS.Timeout;
}

/**
 * Reads mails one after the other in a thread that is begun when it is first needed, and anew where it had to
 * be ended.
 */
export class MailReader {
  private thread: Worker | null = null;
  private asked: Asked | null = null;
  private queue: Promise<unknown> = Promise.resolve();
  private count = 0;

  constructor(private readonly patience = PATIENCE_MS) {}

  /**
   * Throws for what is beyond the bounds, can't be read, or takes too long: whoever took the mail says so to
   * its sender, for it may hold somebody's no.
   */
  read(raw: Buffer): Promise<ReadMail> {
    const fault = mailFault(raw);
    if (fault !== null) return Promise.reject(new Error(fault));
    const turn = this.queue.then(() => this.readNow(raw));
    this.queue = turn.catch(() => undefined);
    return turn;
  }

  async close(): Promise<void> {
    const { thread } = this;
    // Before it has ended: the next mail gets a thread of its own.
    this.thread = null;
    await thread?.terminate();
  }

  private readNow(raw: Buffer): Promise<ReadMail> {
    return new Promise((done, failed) => {
      const id = ++this.count;
      const timer = setTimeout(() => (void this.close(), this.settle(id, null)), this.patience);
      this.asked = { id, done, failed, timer };
      this.running().postMessage({ id, raw });
    });
  }

  private settle(id: number, mail: ReadMail | null): void {
    if (this.asked?.id !== id) return;
    clearTimeout(this.asked.timer);
    const { done, failed } = this.asked;
    this.asked = null;
    if (!mail) return failed(new Error('The mail could not be read'));
    done({
      ...mail,
      attachments: mail.attachments.map((one) => ({ ...one, content: Buffer.from(one.content) })),
    });
  }

  private running(): Worker {
    if (this.thread) return this.thread;
    const thread = new Worker(READER, {
      eval: true,
      workerData: require.resolve('mailparser'),
      resourceLimits: { maxOldGenerationSizeMb: 256 },
    });
    thread.unref();
    thread.on('message', ({ id, mail }: { id: number; mail: ReadMail | null }) => this.settle(id, mail));
    // Out of memory, or a fault of the thread itself: the mail is given up, and the next one gets a new
    // thread.
    thread.on('error', () => {
      if (this.thread !== thread) return;
      this.thread = null;
      if (this.asked) this.settle(this.asked.id, null);
    });
    this.thread = thread;
    return thread;
  }
}
