import { isDeepStrictEqual } from 'node:util';
import { Inject, Injectable } from '@nestjs/common';
import { schema } from '@goodword/core/contract';
import { letterFault, letterRules, ownBlocks, type LetterDoc } from '@goodword/core/letter';
import { speak } from '@goodword/core/words';
import { Invalid } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { sentence } from '../platform/words';
import { sanitizeOwn } from './own-html/sanitize';
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
    if (letter.own && !isAsBroughtIn(letter.own.html, letter.content))
      throw new Invalid([{ field: 'letter', code: 'own', message: sentence('own-html.unclean') }]);
    for (const tree of letterRules(letter)) {
      if (schema.ruleTree.validate(tree).error)
        throw new Invalid([{ field: 'letter', code: 'passage', message: sentence('words.passage') }]);
      await this.rules.checked(scope, tree);
    }
  }
}

/** Whether a page is clean, and its blocks say what it reads: what comes over the wire may be anything. */
function isAsBroughtIn(html: string, content: LetterDoc['content']): boolean {
  return sanitizeOwn(html) === html && isDeepStrictEqual(ownBlocks(html), content);
}
