import { nameMatchKey } from './clean';

/**
 * Jaro's similarity of two strings, 0 to 1 (Jaro 1989): matching characters within half the longer length,
 * and how many of them stand in another order.
 */
export function jaro(a: string, b: string): number {
  if (a === b) return 1;
  if (a === '' || b === '') return 0;
  const reach = Math.max(0, Math.floor(Math.max(a.length, b.length) / 2) - 1);
  const taken = new Uint8Array(b.length);
  const matched: string[] = [];
  for (let i = 0; i < a.length; i++) {
    for (let j = Math.max(0, i - reach); j < Math.min(b.length, i + reach + 1); j++) {
      if (taken[j] || a[i] !== b[j]) continue;
      taken[j] = 1;
      matched.push(a[i]!);
      break;
    }
  }
  if (matched.length === 0) return 0;
  let [at, moved] = [0, 0];
  for (let j = 0; j < b.length; j++) if (taken[j] && matched[at++] !== b[j]) moved += 1;
  const m = matched.length;
  return (m / a.length + m / b.length + (m - moved / 2) / m) / 3;
}

/** Jaro's similarity raised by a common start of up to four letters, a tenth for each (Winkler 1990). */
export function jaroWinkler(a: string, b: string): number {
  const plain = jaro(a, b);
  let start = 0;
  while (start < 4 && start < a.length && a[start] === b[start]) start += 1;
  return plain + start * 0.1 * (1 - plain);
}

/** Short forms of given names, each line one name (common practice, no source). */
const SHORT_FORMS = `
abigail abby gail|albert al bert bertie|alexander alex sandy xander|alexandra alex sandra sasha|alfred alf fred|amanda mandy|andrew andy drew|
anthony tony|barbara barb babs|benjamin ben|beatrice bea|catherine katherine kathryn cathy kathy kate katie kat|charles charlie chuck|charlotte lottie|
christine christina chris tina|christopher chris kit|daniel dan danny|david dave|deborah deb debbie|dennis den|dorothy dot dottie|edward ed eddie ted ned|
eleanor ellie nell nora|elizabeth liz lizzie beth betty eliza lisa libby|emily em|frances fran|francis frank|frederick fred freddie|gabriel gabe|
geoffrey jeffrey geoff jeff|george georgie|gerald gerry jerry|gregory greg|harold harry hal|helen nell|henry harry hank|isabella isabel bella izzy|
jacob jake|james jim jimmy jamie|jane janet jan|jennifer jen jenny|jessica jess|john jack johnny jon|jonathan jon|joseph joe joey|joshua josh|judith judy|
katarina kat|kenneth ken|lawrence larry|leonard len leo|lucinda lucy|margaret maggie meg peggy marge|maria mia|martin marty|matthew matt|maximilian max|
michael mike mick|miguel mike|nathaniel nathan nate|nicholas nick|nicole nicky|oliver ollie|pamela pam|patricia pat patty trish|patrick pat paddy|
peter pete|philip phillip phil|rachel rach|raymond ray|rebecca becky becca|richard rick dick rich|robert rob bob bobby|roberta bobbie|roger rog|
ronald ron|rosemary rose rosie|samantha sam|samuel sam|sarah sally|stephanie steph|stephen steven steve|susan sue susie|theodore ted theo|theresa teresa terry tess|
thomas tom tommy|timothy tim|victoria vicky tori|vincent vince|virginia ginny|walter walt|william will bill billy liam|zachary zach
`;
const FORMS = new Map<string, Set<number>>();
SHORT_FORMS.trim()
  .split('|')
  .forEach((line, i) =>
    line
      .trim()
      .split(/\s+/)
      .forEach((name) => FORMS.set(name, (FORMS.get(name) ?? new Set()).add(i))),
  );

/** Whether two given names are forms of one name, as Bob and Robert; keys as `nameMatchKey` gives them. */
export function sameByShortForm(a: string, b: string): boolean {
  const [of, or] = [FORMS.get(a), FORMS.get(b)];
  return !!of && !!or && [...of].some((line) => or.has(line));
}

/** First and last name of a person. */
export interface PersonName {
  firstName: string;
  lastName: string;
}

/** How near two names are, from the same to plainly others. */
export type NameKinship = 'same' | 'partly' | 'initial' | 'short-form' | 'transposed' | 'alike' | 'other';

/** Names this much alike (Jaro-Winkler) are taken for the same name misspelt. */
const ALIKE = 0.9;

/** No name is longer; what is compared letter by letter must have an end. */
const LONGEST_NAME = 200;

/**
 * How two people's names stand to each other: the same; one lacks a part; one has an initial only; a short
 * form; first and last changed places; misspelt; or another's. Compared without case, marks and spaces.
 */
export function kinship(a: PersonName, b: PersonName): NameKinship {
  const [af, al, bf, bl] = [a.firstName, a.lastName, b.firstName, b.lastName].map((name) =>
    nameMatchKey(name.slice(0, LONGEST_NAME)),
  ) as [string, string, string, string];
  if (af === bf && al === bl) return 'same';
  const [first, last] = [agreement(af, bf), agreement(al, bl)];
  if (first === 'same' && last === 'same') return 'same';
  const fits = (one: string) => one === 'same' || one === 'missing';
  if (fits(first) && fits(last)) return 'partly';
  if (af !== '' && al !== '' && af === bl && al === bf) return 'transposed';
  if (fits(last) && first === 'initial') return 'initial';
  if (fits(last) && sameByShortForm(af, bf)) return 'short-form';
  const alike = (x: string, y: string) =>
    x === y || (x.length > 2 && y.length > 2 && jaroWinkler(x, y) >= ALIKE);
  return alike(af, bf) && (alike(al, bl) || last === 'missing') ? 'alike' : 'other';
}

function agreement(x: string, y: string): 'same' | 'missing' | 'initial' | 'other' {
  if (x === y) return 'same';
  if (x === '' || y === '') return 'missing';
  return (x.length === 1 || y.length === 1) && x[0] === y[0] ? 'initial' : 'other';
}
