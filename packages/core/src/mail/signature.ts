/** What a signature of RFC 6376 is made with. */
export interface SignatureTags {
  algorithm: 'rsa-sha256' | 'ed25519-sha256';
  domain: string;
  selector: string;
  /** Seconds since 1970. */
  at: number;
  /** Headers that are signed, each as often as it is there and once more where none may be added. */
  headers: readonly string[];
  /** Of the relaxed body, in base 64. */
  bodyHash: string;
}

/**
 * Headers that the signature covers and of which none may be added later: they are named once more than they
 * are there (RFC 6376 §5.4.2). Those of §5.4.1, and both that RFC 8058 §4 requires.
 */
export const SEALED_HEADERS: readonly string[] = [
  ...['From', 'Reply-To', 'To', 'Cc', 'Subject', 'Date', 'Message-ID'],
  ...['MIME-Version', 'Content-Type', 'List-Id', 'List-Unsubscribe', 'List-Unsubscribe-Post'],
];

/** A header in its relaxed form (RFC 6376 §3.4.2): name in lower case, unfolded, one space for many. */
export function relaxedHeader(header: string): string {
  const at = header.indexOf(':');
  const value = header
    .slice(at + 1)
    .replace(/\r\n/g, '')
    .replace(/[ \t]+/g, ' ')
    .trim();
  return `${header.slice(0, at).trim().toLowerCase()}:${value}`;
}

/** The names in the order they are signed: those that are there, and one more of each that is sealed. */
export function signedNames(headers: readonly string[], sealed = SEALED_HEADERS): string[] {
  const there = headers.map((header) => header.slice(0, header.indexOf(':')).toLowerCase());
  return sealed.flatMap((name) => {
    const own = name.toLowerCase();
    return [...there.filter((one) => one === own), own];
  });
}

/** A signature's header without its last tag's value, folded. */
export function signatureHead(tags: SignatureTags): string {
  const { algorithm, domain, selector, at, bodyHash } = tags;
  const names: string[] = [];
  let line = ' h=';
  for (const [i, name] of tags.headers.entries()) {
    const next = i < tags.headers.length - 1 ? `${name}:` : `${name};`;
    if (line.length + next.length > 76) {
      names.push(line);
      line = '  ';
    }
    line += next;
  }
  names.push(line);
  return [
    `DKIM-Signature: v=1; a=${algorithm}; c=relaxed/relaxed;`,
    ` d=${domain}; s=${selector}; t=${at};`,
    ...names,
    ` bh=${bodyHash};`,
    ` b=`,
  ].join('\r\n');
}

/**
 * What is signed (RFC 6376 §3.7): the headers by their names, the last of a name first (§5.4.2), then the
 * signature's own header with nothing behind `b=`.
 */
export function signedWords(headers: readonly string[], names: readonly string[], head: string): string {
  const by = new Map<string, string[]>();
  for (const header of headers) {
    const relaxed = relaxedHeader(header);
    const name = relaxed.slice(0, relaxed.indexOf(':'));
    by.set(name, [...(by.get(name) ?? []), relaxed]);
  }
  let out = '';
  for (const name of names) {
    const header = by.get(name.toLowerCase())?.pop();
    if (header !== undefined) out += `${header}\r\n`;
  }
  return out + relaxedHeader(head);
}
