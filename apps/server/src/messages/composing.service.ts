import { Inject, Injectable } from '@nestjs/common';
import type { MessageFault } from '@goodword/core/contract';
import { type Basis, speak, whyWords } from '@goodword/core/words';
import {
  asksForAmounts,
  blanksIn,
  imageIdOf,
  letterDoubts,
  NO_WORDS,
  picturesOf,
  readableLines,
  USUAL_STYLE,
  type HouseStyle,
  type WrittenWords,
} from '@goodword/core/letter';
import { askingIn } from '@goodword/core/text';
import { CONFIG, shiftTablesOf, type Config } from '../platform/config';
import { Database, type ReadAt } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { GroupsRepository } from '../supporters/groups.repository';
import { pageLanguage, PHRASES } from '../platform/pages/phrases';
import { imprint, TeamRepository, type OrganizationRow } from '../team/team.repository';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import {
  composeEmail,
  composePost,
  composeScript,
  composeText,
  filledText,
  mergeFaults,
  slotsIn,
  type Composed,
  type EmailAround,
} from './composer';
import { ImagesService } from './images.service';
import { MergeRegistryService } from './merge-registry.service';
import type { Composable, MessageRow } from './messages.repository';
import { sentence } from '../platform/words';

/**
 * Brings a message together with what stands around it: the merge fields there are, the footer, the reason
 * why.
 */
@Injectable()
export class ComposingService {
  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(Database) private readonly database: Database,
    @Inject(MergeRegistryService) private readonly registry: MergeRegistryService,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(ImagesService) private readonly images: ImagesService,
  ) {}

  async compose(
    at: ReadAt,
    message: Composable,
  ): Promise<{
    composed: Composed;
    organization: OrganizationRow;
    why: string;
    /** The reason that stands under one person's, by what it rests on. */
    whyOf: (basis: Basis | null) => string;
    listName: string | null;
  }> {
    const [registry, organization, list] = await Promise.all([
      this.registry.of(at),
      this.team.organization(at),
      this.list(at, message),
    ]);
    const about = {
      purpose: message.purpose,
      list: list && listWords(list, organization.name),
      organization: organization.name,
    };
    // Without a person it is the reason of somebody who agreed.
    const why = whyWords(about, { state: 'yes', how: 'form' });
    const whyOf = (basis: Basis | null) => whyWords(about, basis);
    const { name } = organization;
    const locale = message.locale ?? organization.locale;
    const style = styleOf(organization);
    const around: EmailAround = {
      registry,
      style,
      picture: await this.images.served(this.database.read(at), [
        ...picturesOf(message.letter ?? { type: 'doc' }),
        ...(style.logo ? [style.logo.src] : []),
      ]),
      organization: name,
      imprint: imprint(organization),
      why,
      leaveWords: PHRASES[pageLanguage(locale)].leaveOrChoose,
      language: locale,
    };
    const letter = message.letter ?? { type: 'doc' };
    const composed = {
      text: () =>
        composeText(message.body, {
          ...{ registry, organization: name, locale },
          plainly: message.plainly === 1,
          linkUrl: organization.link_url || this.config.PUBLIC_URL,
          shiftTables: shiftTablesOf(this.config),
        }),
      call: () => composeScript(message.body, registry),
      email: () => composeEmail({ subject: message.subject, preheader: message.preheader, letter }, around),
      post: () => composePost(letter, around),
    }[message.channel]();
    return { composed, organization, why, whyOf, listName: list?.name ?? null };
  }

  /** What is wrong with a message, in sentences: merge fields that are unknown, parts that are missing. */
  async faults(at: ReadAt, message: MessageRow): Promise<MessageFault[]> {
    const merge = [
      ...blanksIn(wordsOf(message)).map((blank) => missing('message', sentence('words.blank', { blank }))),
      ...(await this.mergeFaults(at, message)),
    ];
    const organization = await this.team.organization(at);
    const { composed } = await this.compose(at, message);
    const asked = new Set(slotsIn(composed).map(({ key }) => key));
    if (organization.giving_page === '' && asked.has('link.giving'))
      merge.push(missing('message', sentence('words.no-giving-page')));
    // Each has their own from the moment that it is handed over: on paper there is none.
    if (message.channel === 'post' && asked.has('link.preferences'))
      merge.push(missing('message', sentence('words.no-link-on-paper')));
    if (message.channel === 'text')
      return [
        ...(message.body.trim() === '' ? [missing('text', sentence('words.text-empty'))] : []),
        ...(this.config.TEXT_URL === '' ? [missing('message', sentence('words.no-gateway'))] : []),
        ...(organization.text_from === '' ? [missing('message', sentence('words.no-number'))] : []),
        ...merge,
      ];
    // Whoever calls may know by heart what to say.
    if (message.channel === 'call') return merge;
    const postal =
      organization.postal_address.trim() === '' ? [missing('message', sentence('words.no-postal'))] : [];
    const empty = hasContent(message.letter) ? [] : [missing('letter', sentence('words.letter-empty'))];
    if (message.channel === 'post') return [...empty, ...postal, ...merge];
    return [
      ...(message.subject.trim() === '' ? [missing('subject', sentence('words.no-subject'))] : []),
      ...(organization.from_email === '' || organization.list_domain === ''
        ? [missing('message', sentence('words.no-sender'))]
        : []),
      ...empty,
      ...postal,
      ...merge,
    ];
  }

  /** Merge fields that are unknown, with the nearest right name. */
  async mergeFaults(at: ReadAt, words: Composable): Promise<MessageFault[]> {
    const registry = await this.registry.of(at);
    return mergeFaults(wordsOf(words), registry).map(({ where, fault, excerpt }) => ({
      where,
      message: speak(fault.said),
      suggestion: fault.suggestion,
      excerpt,
    }));
  }

  /** What is worth a second look in a letter before it leaves, in sentences; nothing is held back for it. */
  async doubts(at: ReadAt, message: Composable): Promise<string[]> {
    const { channel, letter } = message;
    if (channel !== 'email' || letter === null) return [];
    const { composed } = await this.compose(at, message);
    const db = this.database.read(at);
    const weight = {
      html: Buffer.byteLength(filledText(composed, {}).html),
      pictures: await this.images.weightOf(
        db,
        picturesOf(letter).flatMap((src) => imageIdOf(src) ?? []),
      ),
    };
    return letterDoubts(letter, weight).map(speak);
  }

  /**
   * What asks in a message that goes to people who said no to being asked: none where it is no service
   * message.
   */
  async asks(db: Scoped, message: MessageRow): Promise<string[]> {
    if (message.purpose !== 'service') return [];
    const words = readableLines(wordsOf(message)).join('\n');
    const found = askingIn(words, (await this.houseRules.rules(db)).askingWords);
    // Amounts that are asked for ask, whatever the words beside them say.
    return asksForAmounts(wordsOf(message)) ? [...found, sentence('words.amounts')] : found;
  }

  private async list(
    at: ReadAt,
    message: Composable,
  ): Promise<{ name: string; description: string; why: string } | null> {
    if (message.list_id === null) return null;
    return (
      (await this.groups.lists(this.database.read(at))).find((list) => list.id === message.list_id) ?? null
    );
  }
}

/** How letters look, with the logo as it is today. */
function styleOf({ house_style: own, logo_id: logo }: OrganizationRow): HouseStyle {
  const style = own ?? USUAL_STYLE;
  const shown = style.logo !== null && logo !== null;
  return { ...style, logo: shown ? { src: `/media/${logo}`, width: style.logo!.width } : null };
}

function missing(where: MessageFault['where'], message: string): MessageFault {
  return { where, message, suggestion: null, excerpt: null };
}

/** What is read of a message: of a letter no text, and of a text no letter that it was begun with. */
function wordsOf({ channel, subject, preheader, letter, body }: Composable): WrittenWords {
  if (channel === 'text' || channel === 'call') return { ...NO_WORDS, text: body };
  return channel === 'email' ? { subject, preheader, letter, text: '' } : { ...NO_WORDS, letter };
}

function hasContent(letter: MessageRow['letter']): boolean {
  return JSON.stringify(letter ?? {}).match(/"(text|label|src)":"[^"]/) !== null;
}

function listWords(list: { name: string; description: string; why: string }, organization: string): string {
  return list.why || list.description || `You are on the list “${list.name}” of ${organization}.`;
}
