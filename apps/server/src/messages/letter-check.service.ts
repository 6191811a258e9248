import { Inject, Injectable } from '@nestjs/common';
import { schema } from '@goodword/core/contract';
import { letterFault, letterRules, type LetterDoc } from '@goodword/core/letter';
import { speak } from '@goodword/core/words';
import { Invalid } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { sentence } from '../platform/words';
import { RuleNamesService } from '../segments/rule-names.service';

/** Whether a letter that came over the wire can be kept. */
@Injectable()
export class LetterCheckService {
  constructor(@Inject(RuleNamesService) private readonly rules: RuleNamesService) {}

  /** Refuses one with pieces that can't be mailed, or passages for people whom no sentence says. */
  async check(scope: AccessScope, letter: LetterDoc | null): Promise<void> {
    if (letter === null) return;
    const wrong = letterFault(letter);
    if (wrong) throw new Invalid([{ field: 'letter', code: wrong.code, message: speak(wrong) }]);
    for (const tree of letterRules(letter)) {
      if (schema.ruleTree.validate(tree).error)
        throw new Invalid([{ field: 'letter', code: 'passage', message: sentence('words.passage') }]);
      await this.rules.checked(scope, tree);
    }
  }
}
