import fc from 'fast-check';
import { isConfirmWord, PLAIN_STOPS, readIntent, WHOLE_STOPS, type ReplyIntent } from '.';

describe('what closes or holds a channel', () => {
  // 47 CFR 64.1200(a)(10)(i): "stop," "quit," "end," "revoke," "opt out," "cancel," or "unsubscribe".
  test.each(['stop', 'quit', 'end', 'revoke', 'opt out', 'cancel', 'unsubscribe'])(
    '%s in any dress stops',
    (word) => {
      for (const dress of [
        word,
        word.toUpperCase(),
        `${word}!`,
        ` ${word}. `,
        `"${word}"`,
        `${word} please`,
        `Please ${word}`,
        word.replace(' ', '-'),
      ])
        expect([dress, readIntent(dress)]).toEqual([dress, 'stop']);
    },
  );

  test.each<[string, ReplyIntent]>([
    ['STOP\nSent from my phone', 'stop'],
    ['STOP STOP', 'stop'],
    ['Stop. Thank you', 'stop'],
    ['Stop, thanks', 'stop'],
    ['Stop!!! I mean it', 'stop'],
    ['Ｓｔｏｐ', 'stop'],
    ['STOPP', 'stop'],
    ['stooooop', 'stop'],
    ['S T O P', 'stop'],
    ['ＳТОР', 'stop'],
    ['Stopped', 'stop'],
    ['Unsubscribed', 'stop'],
    ['STOPALL', 'stop'],
    ['ALTO', 'stop'],
    ['СТОП', 'stop'],
    ['ARRET', 'stop'],
    ['Arrêt', 'stop'],
    ['Abmelden bitte', 'stop'],
    ['BAJA', 'stop'],
    ["I don't mind the letters. Stop.", 'stop'],
    ['Thanks for the boats - stop', 'stop'],
    ['End. Thank you.', 'stop'],
    ['I revoke my consent', 'hold'],
    ['Please cancel my subscription', 'hold'],
    ['do NOT text', 'hold'],
    ['Do not text this number', 'hold'],
    ['Stop at once, no more texts to me', 'stop'],
    ['Your nonstop texts! Leave me alone', 'hold'],
    ["Please don't remove me from email, but stop texting me", 'hold'],
    ['lose my number', 'hold'],
    ['Please stop texting me', 'hold'],
    ['Take me off your list', 'hold'],
    ['Ne m’envoyez plus de messages', 'hold'],
    ['Laissez-moi tranquille', 'hold'],
    ['no me envíen más mensajes', 'hold'],
    ['Denme de baja por favor', 'hold'],
    ['Bitte keine Nachrichten mehr', 'hold'],
    ['Lassen Sie mich in Ruhe', 'hold'],
    ['Ich widerrufe meine Einwilligung', 'hold'],
    ["don't stop the boat", 'none'],
    ['nonstop fun', 'none'],
    ["can't stop smiling", 'none'],
    ['please stop by the shed', 'none'],
    ['Which bus stop is nearest?', 'none'],
    ['Can we end the evening run at eight?', 'none'],
    ['How do I cancel the noise of the pump?', 'none'],
    ['endless thanks', 'none'],
    ['I do not know whom to call', 'none'],
    ['My mother never wrote a letter like it', 'none'],
    ['Start', 'start'],
    ['help', 'help'],
    ['', 'none'],
    ['…!', 'none'],
  ])('%j asks: %s', (text, asks) => {
    expect(readIntent(text)).toBe(asks);
  });

  test('every word of the lists stops by itself, and each list says where it is from', () => {
    for (const { language, source, words } of [...PLAIN_STOPS, ...WHOLE_STOPS]) {
      expect([language.length, source.length > 5]).toEqual([2, true]);
      for (const word of words) expect([word, readIntent(word.toLowerCase())]).toEqual([word, 'stop']);
    }
  });

  test('a plain stop outweighs whatever stands beside it', () => {
    const other = fc.constantFrom(
      "don't stop the boat",
      'thanks for everything',
      'I love the ferry',
      'see you there',
      "can't stop smiling",
    );
    const stop = fc.constantFrom('STOP', 'stop please', 'Unsubscribe', 'opt out');
    const mark = fc.constantFrom('. ', '! ', '\n', ', ');
    fc.assert(
      fc.property(
        fc.array(other, { maxLength: 3 }),
        stop,
        fc.array(other, { maxLength: 3 }),
        mark,
        (before, word, after, between) => {
          expect(readIntent([...before, word, ...after].join(between))).toBe('stop');
        },
      ),
    );
  });

  test('a long text costs as much as it is long', () => {
    const cost = (text: string) => {
      const began = performance.now();
      readIntent(text);
      return performance.now() - began;
    };
    for (const piece of ['do not ', 'stop ', ' ', "don't ", 'a', 'sent from my ']) {
      cost(piece.repeat(2000));
      const [small, large] = [cost(piece.repeat(2000)) + 1, cost(piece.repeat(20_000)) + 1];
      expect([piece, large / small < 60]).toEqual([piece, true]);
    }
  });
});

test('what answers "reply YES"', () => {
  expect(['Yes!', 'y', 'Sí', 'OUI', 'ja', 'ok'].every(isConfirmWord)).toBe(true);
  expect(['yes please do', 'no', ''].some(isConfirmWord)).toBe(false);
});
