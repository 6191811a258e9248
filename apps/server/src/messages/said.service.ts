import { Inject, Injectable } from '@nestjs/common';
import { letterParagraphs } from '@goodword/core/letter';
import { compile, render } from '@goodword/core/merge';
import type { AccessScope } from '../platform/scope';
import { TeamRepository } from '../team/team.repository';
import { ComposingService } from './composing.service';
import { MergeRegistryService } from './merge-registry.service';
import { MessageValuesService, wantedFor } from './message-values.service';
import type { Composable } from './messages.repository';

/** What a message says to one person, in plain words: kept where it was written to them alone. */
@Injectable()
export class SaidService {
  constructor(
    @Inject(ComposingService) private readonly composing: ComposingService,
    @Inject(MergeRegistryService) private readonly registry: MergeRegistryService,
    @Inject(MessageValuesService) private readonly values: MessageValuesService,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {}

  async to(
    scope: AccessScope,
    words: Composable,
    { senderId, supporterId }: { senderId: number | null; supporterId: number },
  ): Promise<string> {
    const { composed, organization } = await this.composing.compose(scope, words);
    const sender = senderId ? await this.team.teammate(scope, senderId) : undefined;
    const wanted = wantedFor(words, { composed, organization, sender });
    const values = (await this.values.of(scope, [supporterId], wanted)).get(supporterId) ?? {};
    const registry = await this.registry.of(scope);
    const typed =
      words.channel === 'text' ? [words.body] : words.letter ? letterParagraphs(words.letter, values) : [];
    return typed.map((line) => render(compile(line, registry), values)).join('\n\n');
  }
}
