import { dayInZone } from '@goodword/core/common';
import { formatDay } from '@goodword/core/fields';
import { Inject, Injectable } from '@nestjs/common';
import { greetingOf } from '@goodword/core/household';
import { imageIdOf, picturesOf, USUAL_STYLE } from '@goodword/core/letter';
import type { LetterForm } from '@goodword/core/print';
import { ComposingService } from '../messages/composing.service';
import { ImagesService } from '../messages/images.service';
import { MergeRegistryService } from '../messages/merge-registry.service';
import { MessageValuesService, wantedFor } from '../messages/message-values.service';
import type { Composable } from '../messages/messages.repository';
import { Database } from '../platform/database';
import type { AccessScope } from '../platform/scope';
import { addressLines, inOrder, nameOf, type Here } from '../print/printed-people.service';
import { TeamRepository, type OrganizationRow, type TeammateRow } from '../team/team.repository';
import { letterPages, type LetterAround, type PrintedLetter } from './letter-pages';

/** Words to lay out for whoever they are for. */
export type LetterWords = Omit<Composable, 'channel'> & { sender_id: number | null };

/** People of one letter, and its number in the pile. */
export interface LetterOf {
  number: number;
  together: Here[];
}

/** Lays letters out: each with the address of its window and its people's words. */
@Injectable()
export class LetterComposer {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MergeRegistryService) private readonly registry: MergeRegistryService,
    @Inject(ComposingService) private readonly composing: ComposingService,
    @Inject(MessageValuesService) private readonly values: MessageValuesService,
    @Inject(ImagesService) private readonly images: ImagesService,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {}

  async pages(scope: AccessScope, words: LetterWords, letters: readonly LetterOf[], form: LetterForm) {
    const { composed, organization } = await this.composing.compose(scope, { ...words, channel: 'post' });
    const sender = words.sender_id ? await this.team.teammate(scope, words.sender_id) : undefined;
    const values = await this.values.of(
      scope,
      letters.map(({ together }) => together[0]!.person.id),
      wantedFor({ ...words, channel: 'post' }, { composed, organization, sender }),
    );
    const printed = letters.map(({ number, together }): PrintedLetter => {
      const own = values.get(together[0]!.person.id) ?? {};
      // Only those who are written to are greeted: whoever of the household objected is not.
      const greeting = greetingOf(inOrder(together).map(nameOf), null, organization.locale);
      return { number, address: addressLines(together, organization), values: { ...own, greeting } };
    });
    const around = await this.around(scope, words, { organization, sender, form });
    return letterPages(words.letter ?? { type: 'doc' }, printed, around);
  }

  private async around(
    scope: AccessScope,
    words: LetterWords,
    {
      organization,
      sender,
      form,
    }: { organization: OrganizationRow; sender: TeammateRow | undefined; form: LetterForm },
  ): Promise<LetterAround> {
    const { house_style: own, logo_id: logoId } = organization;
    const style = own ?? USUAL_STYLE;
    const plain = words.letter?.plain === true;
    const logo = !plain && style.logo && logoId ? { ...style.logo, src: `/media/${logoId}` } : null;
    const signature = sender?.picture_id ? `/media/${sender.picture_id}` : null;
    const sources = [
      ...picturesOf(words.letter ?? { type: 'doc' }),
      ...(logo ? [logo.src] : []),
      ...(signature ? [signature] : []),
    ];
    return {
      form,
      registry: await this.registry.of(scope),
      organization: organization.name,
      postalAddress: organization.postal_address,
      day: formatDay(dayInZone(Date.now(), organization.time_zone), words.locale ?? organization.locale),
      pictures: await this.images.inDocument(
        this.database.read(scope),
        sources.flatMap((src) => imageIdOf(src) ?? []),
      ),
      logo,
      signature,
    };
  }
}
