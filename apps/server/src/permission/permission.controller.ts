import { Controller, HttpCode, Inject, Res, UploadedFile, UseInterceptors } from '@nestjs/common';
import { FileInterceptor } from '@nestjs/platform-express';
import type { Response } from 'express';
import {
  schema,
  type DncAdded,
  type DncRow,
  type Page,
  type RulesView,
  type RulesWeighed,
  answers,
  type WeighRulesBody,
  type SaveRulesBody,
  type SettleRulesBody,
  type DncQuery,
  type AddDncBody,
} from '@goodword/core/contract';
import { Caller, Id, Input, Route } from '../platform/api';
import { Invalid } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { DoNotContactService } from './do-not-contact.service';
import { HouseRulesService } from './house-rules.service';
import { sentence } from '../platform/words';

@Controller('api')
export class PermissionController {
  constructor(
    @Inject(HouseRulesService) private readonly houseRules: HouseRulesService,
    @Inject(DoNotContactService) private readonly doNotContact: DoNotContactService,
  ) {}

  @Route('get', 'house-rules', {
    role: 'viewer',
    summary: 'The rules of the house, and every change of them',
    answer: answers.rulesView,
  })
  rules(@Caller() scope: AccessScope): Promise<RulesView> {
    return this.houseRules.view(scope);
  }

  @Route('post', 'house-rules/weigh', {
    ofAll: true,
    role: 'owner',
    summary: 'Whom a change of rules opens and closes, without making it',
    body: schema.weighRules,
    answer: answers.rulesWeighed,
  })
  @HttpCode(200)
  weigh(@Caller() scope: AccessScope, @Input('body') body: WeighRulesBody): Promise<RulesWeighed> {
    return this.houseRules.weigh(scope, body.rules);
  }

  @Route('put', 'house-rules', {
    role: 'owner',
    ofAll: true,
    summary: 'Change the rules of the house',
    body: schema.saveRules,
    answer: answers.rulesWeighed,
  })
  save(@Caller() scope: AccessScope, @Input('body') body: SaveRulesBody): Promise<RulesWeighed> {
    return this.houseRules.save(scope, body.rules, body.basedOn);
  }

  @Route('post', 'house-rules/waiting', {
    ofAll: true,
    role: 'owner',
    summary: 'Agree to a change of rules that another owner asked for, or turn it down',
    body: schema.settleRules,
  })
  @HttpCode(204)
  settle(@Caller() scope: AccessScope, @Input('body') body: SettleRulesBody): Promise<void> {
    return this.houseRules.settle(scope, body.agrees);
  }

  @Route('get', 'do-not-contact', {
    role: 'organizer',
    summary: 'What is never written to',
    query: schema.dncQuery,
    answer: answers.pageOf(answers.dncRow),
  })
  list(@Caller() scope: AccessScope, @Input('query') query: DncQuery): Promise<Page<DncRow>> {
    return this.doNotContact.page(scope, query);
  }

  @Route('post', 'do-not-contact', {
    role: 'organizer',
    summary: 'Add addresses, domains, numbers and ranges, one a line',
    body: schema.addDnc,
    answer: answers.dncAdded,
  })
  @HttpCode(200)
  add(@Caller() scope: AccessScope, @Input('body') body: AddDncBody): Promise<DncAdded> {
    return this.doNotContact.add(scope, body.lines, body.note);
  }

  @Route('post', 'do-not-contact/file', {
    role: 'organizer',
    summary: 'Add a file of them, one a line (multipart: file)',
    answer: answers.dncAdded,
  })
  @HttpCode(200)
  @UseInterceptors(FileInterceptor('file', { limits: { fileSize: 4 * 1024 * 1024, files: 1, fields: 1 } }))
  addFile(
    @Caller() scope: AccessScope,
    @UploadedFile() file: Express.Multer.File | undefined,
  ): Promise<DncAdded> {
    if (!file)
      throw new Invalid([{ field: 'file', code: 'missing', message: sentence('do-not-contact.file') }]);
    // The first cell of each line: such files often come with more columns than the address.
    const lines = file.buffer.toString('utf8').replace(/^\uFEFF/, '');
    const first = lines.split(/\r\n|\r|\n/).map((line) => line.split(/[;,\t]/)[0] ?? '');
    const header = /^"?(e-?mail|address|phone|mobile|number)\b/i.test(first[0] ?? '');
    return this.doNotContact.add(
      scope,
      (header ? ['', ...first.slice(1)] : first).join('\n'),
      file.originalname.slice(0, 200),
      'file',
    );
  }

  @Route('delete', 'do-not-contact/:id', {
    role: 'owner',
    summary: 'Take an entry off',
    params: schema.idParams,
  })
  @HttpCode(204)
  remove(@Caller() scope: AccessScope, @Id() id: number): Promise<void> {
    return this.doNotContact.remove(scope, id);
  }

  @Route('get', 'house-rules.json', { role: 'viewer', summary: 'The rules of the house as a file' })
  async file(@Caller() scope: AccessScope, @Res() response: Response): Promise<void> {
    const { rules } = await this.houseRules.view(scope);
    response.attachment('house-rules.json').json(rules);
  }
}
