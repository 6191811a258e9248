import { alignmentOf, checkRecord, isAligned, metDemands, wantedRecords, type SenderFacts } from '.';

const facts: SenderFacts = {
  from: 'lanternferry.test',
  lists: 'lists.lanternferry.test',
  signing: 'lanternferry.test',
  keys: [
    { selector: 'gw', record: 'v=DKIM1; k=rsa; p=AAAA', use: 'now' },
    { selector: 'gw-next', record: 'v=DKIM1; k=ed25519; p=BBBB', use: 'next' },
  ],
  desk: 'desk.lanternferry.test',
  links: 'go.lanternferry.test',
};
const wanted = (what: string) => wantedRecords(facts).find((one) => one.what === what)!;
const faultOf = (what: string, ...found: string[]) => checkRecord(wanted(what), found).fault;

test('the records of a sender, each where it is to stand', () => {
  expect(wantedRecords(facts).map(({ what, name, kind }) => `${what} ${name} ${kind}`)).toEqual([
    'dkim gw._domainkey.lanternferry.test TXT',
    'dkim-next gw-next._domainkey.lanternferry.test TXT',
    'spf lists.lanternferry.test TXT',
    'dmarc _dmarc.lanternferry.test TXT',
    'mx lists.lanternferry.test MX',
    'links go.lanternferry.test A',
  ]);
  expect(
    wantedRecords({ ...facts, lists: '', signing: '', links: facts.desk }).map(({ what }) => what),
  ).toEqual(['dmarc']);
});

// RFC 6376 §3.6.1: white space in p means nothing; an empty p is a key that was revoked.
test.each([
  [['v=DKIM1; k=rsa; p=AA AA'], null],
  [['p=AAAA'], null],
  [['v=DKIM1; p='], 'revoked'],
  [['v=DKIM1; p=CCCC'], 'other-key'],
  [['something else'], 'missing'],
  [[], 'missing'],
  [['p=AAAA', 'p=CCCC'], 'several'],
])('a key %j: %s', (found, fault) => expect(faultOf('dkim', ...found)).toBe(fault));

// RFC 7208: the examples of its appendix A.1 to A.3 end with -all; +all lets everybody in (§5.1).
test.each([
  [['v=spf1 a -all'], null],
  [['v=spf1 mx -all'], null],
  [['v=spf1 ip4:192.0.2.128/28 -all'], null],
  [['v=spf1 include:example.org ~all', 'other=x'], null],
  [['v=spf1 redirect=_spf.example.com'], null],
  [['v=spf1 +all'], 'open'],
  [['v=spf1 all'], 'open'],
  [['v=spf1 include:example.org'], 'no-end'],
  [['v=spf1 -all', 'v=spf1 mx -all'], 'several'],
  [['v=spf10 -all'], 'missing'],
  [[`v=spf1 ${'include:a.example '.repeat(11)}-all`], 'too-many-lookups'],
  [[`v=spf1 ${'include:a.example '.repeat(10)}-all`], null],
  [[`v=spf1 ${'ip4:192.0.2.1 '.repeat(20)}-all`], null],
])('senders %j: %s', (found, fault) => expect(faultOf('spf', ...found)).toBe(fault));

// RFC 7489 §6.3 and appendix B.2.
test.each([
  [['v=DMARC1; p=none; rua=mailto:dmarc-feedback@example.com'], null],
  [['v=DMARC1; p=quarantine; sp=none'], null],
  [['v=DMARC1'], 'no-policy'],
  [['v=DMARC1; p=maybe'], 'no-policy'],
  [['v=dmarc1; p=none'], 'missing'],
  [['v=DMARC1; p=none', 'v=DMARC1; p=reject'], 'several'],
])('a policy %j: %s', (found, fault) => expect(faultOf('dmarc', ...found)).toBe(fault));

test('where mail comes back to, and where links lead', () => {
  expect(faultOf('mx', 'Desk.lanternferry.test.')).toBeNull();
  expect(faultOf('mx', 'mail.elsewhere.test')).toBe('elsewhere');
  const links = (found: string[]) => checkRecord(wanted('links'), found, ['192.0.2.7']).fault;
  expect([links(['192.0.2.7']), links(['192.0.2.8']), links([])]).toEqual([null, 'elsewhere', 'missing']);
});

test('where nobody answers, nothing is said to be wrong', () => {
  expect(checkRecord(wanted('spf'), null)).toMatchObject({ found: null, fault: null });
});

// RFC 7489 §3.1.1: its examples of relaxed and strict alignment.
test('domains of one organization are aligned unless they are to be the same', () => {
  const organizational = (domain: string) => domain.split('.').slice(-2).join('.');
  const aligned = (from: string, other: string, strict = false) =>
    isAligned(from, other, strict, organizational);
  expect(aligned('news.example.com', 'example.com')).toBe(true);
  expect(aligned('news.example.com', 'example.com', true)).toBe(false);
  expect(aligned('example.com', 'Example.com', true)).toBe(true);
  expect(aligned('example.com', 'sample.net')).toBe(false);
  expect(aligned('example.com', '')).toBe(false);
  const record = checkRecord(wanted('dmarc'), ['v=DMARC1; p=reject; adkim=s']);
  expect(alignmentOf([record])).toEqual({ dkim: 'strict', spf: 'relaxed' });
});

test('demands are met, not met, or not ours to say', () => {
  const all = wantedRecords(facts).map((record) => checkRecord(record, []));
  const of = { records: all, aligned: false, tls: null, complaints: { reached: 1000, complained: 3 } };
  const met = (given: Parameters<typeof metDemands>[0]) =>
    Object.fromEntries(metDemands(given).map((one) => [one.demand, one.met]));
  expect(met(of)).toMatchObject({
    signed: false,
    spf: false,
    complaints: false,
    tls: null,
    'one-click': true,
  });
  expect(met({ ...of, complaints: { reached: 1001, complained: 3 } })).toMatchObject({ complaints: true });
  expect(met({ ...of, complaints: { reached: 0, complained: 0 } })).toMatchObject({ complaints: null });
  const unheard = wantedRecords(facts).map((record) => checkRecord(record, null));
  expect(met({ ...of, records: unheard })).toMatchObject({ signed: null, dmarc: null });
});
