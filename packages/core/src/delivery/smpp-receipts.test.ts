import { otherSmppIds, readSmppReceipt, smppId, textFault, type SmppReceipt } from '.';

const WORDS =
  'id:0123456789 sub:001 dlvrd:001 submit date:0209011230 done date:0209011231 stat:DELIVRD err:000 text:Planks';
const receipt = (part: Partial<SmppReceipt>) =>
  readSmppReceipt({ id: null, state: null, code: null, words: '', ...part });

test('the words of a receipt are read as appendix B of SMPP 3.4 writes them', () => {
  expect(receipt({ words: WORDS })).toEqual({ id: '0123456789', status: 'delivered', why: null, code: '' });
  expect(receipt({ words: WORDS.replace('DELIVRD', 'EXPIRED') })).toMatchObject({ status: 'failed' });
  expect(receipt({ words: WORDS.replace('DELIVRD', 'ACCEPTD') })).toMatchObject({ status: null });
});

test('fields of its own go before words, and a code is taken from a GSM network alone', () => {
  const code = Uint8Array.from([3, 0, 1]);
  const said = receipt({ id: 'a7', state: 5, code, words: WORDS })!;
  expect(said).toEqual({ id: 'a7', status: 'failed', why: 'undeliverable', code: '1' });
  // MAP error 1, unknown subscriber: the number is nobody's (3GPP TS 29.002).
  expect(textFault({ code: said.code, reason: '' })).toBe('address');
  expect(receipt({ id: 'a7', state: 5, code: Uint8Array.from([1, 0, 1]) })!.code).toBe('');
  // A gateway's own number for an error is no MAP error.
  expect(receipt({ words: WORDS.replace('DELIVRD', 'UNDELIV').replace('err:000', 'err:001') })!.code).toBe(
    '',
  );
});

test('what names no message or no state is no receipt', () => {
  expect(receipt({ words: 'STOP' })).toBeNull();
  expect(receipt({ words: 'stat:DELIVRD' })).toBeNull();
  expect(receipt({ words: 'id:7 stat:MAYBE' })).toBeNull();
});

test('an id is the same in capitals and with zeros, and in hexadecimal figures where it was decimal', () => {
  expect([smppId(' 0000A1F3 '), smppId('0'), smppId('00')]).toEqual(['a1f3', '0', '0']);
  expect(otherSmppIds('2A1F3B9C0')).toEqual([String(0x2a1f3b9c0)]);
  expect(otherSmppIds(String(0x2a1f3b9c0))).toContain('2a1f3b9c0');
  // Those that count up from one would be another message's.
  expect(otherSmppIds('16')).toEqual([]);
  expect(otherSmppIds('9f0c-77-aa')).toEqual([]);
});
