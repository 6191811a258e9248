import { Controller, HttpCode, Inject, Param, Req, Res } from '@nestjs/common';
import type { Request, Response } from 'express';
import { schema } from '@goodword/core/contract';
import { choicesOf } from '@goodword/core/fields';
import { LANGUAGES, readAnswer, type AnswerFault, type Language } from '@goodword/core/forms';
import { escapeHtml } from '@goodword/core/letter';
import { languageOf, lines, supporterPage } from '../platform/pages/page';
import { phrase, PHRASES } from '../platform/pages/phrases';
import { Route } from '../platform/api';
import { CONFIG, type Config } from '../platform/config';
import { Database } from '../platform/database';
import { RateLimits, type RateLimit } from '../platform/rate-limit';
import { programScope } from '../platform/scope';
import { FieldsRepository } from '../supporters/fields.repository';
import { imprint, logoOf, TeamRepository, type OrganizationRow } from '../team/team.repository';
import type { ConfirmationRow } from './confirmations.repository';
import { ConfirmationsService, type ConfirmationOutcome } from './confirmations.service';
import { FormsRepository, type FormRow } from './forms.repository';
import { FormsService } from './forms.service';
import { JoinService } from './join.service';
import { HONEYPOT, joinPage, privacyPage, thanksPage, type JoinPage } from './join-page';
import { FORM_SCRIPT, FRAME_SCRIPT } from './scripts';
import { type PostedTexts, textsOf, hiddenFrom } from './posted-texts';

const SCRIPT_AGE = 'public, max-age=3600';

/**
 * The pages where supporters join and confirm: no session, no script needed, nothing said about who is known.
 */
@Controller()
export class JoinController {
  /** A tablet at a fair sends many from one address; a robot sends thousands. */
  private readonly posts: RateLimit;
  private readonly begins: RateLimit;

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(FormsRepository) private readonly forms: FormsRepository,
    @Inject(FormsService) private readonly service: FormsService,
    @Inject(JoinService) private readonly joining: JoinService,
    @Inject(ConfirmationsService) private readonly confirmations: ConfirmationsService,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(CONFIG) private readonly config: Config,
    @Inject(RateLimits) limits: RateLimits,
  ) {
    this.posts = limits.of('form', 60, 600);
    this.begins = limits.of('form-begun', 300, 600);
  }

  @Route('get', 'join/form.js', { role: 'anyone', summary: "The hosted form's own small script" })
  formScript(@Res() response: Response): void {
    response.type('js').set('cache-control', SCRIPT_AGE).send(FORM_SCRIPT);
  }

  @Route('get', 'join/frame.js', { role: 'anyone', summary: 'The script that puts a form into another page' })
  frameScript(@Res() response: Response): void {
    response
      .type('js')
      .set('cache-control', SCRIPT_AGE)
      .set('cross-origin-resource-policy', 'cross-origin')
      .send(FRAME_SCRIPT);
  }

  @Route('get', 'join/:slug', {
    role: 'anyone',
    summary: 'A sign-up form as a page',
    params: schema.slugParams,
    query: schema.pageQuery,
  })
  async page(@Param('slug') slug: string, @Req() request: Request, @Res() response: Response): Promise<void> {
    const form = await this.open(slug, request, response);
    if (!form) return;
    const page = await this.about(form, request);
    this.allowFraming(response, form);
    await this.forms.count(this.database.read(programScope(form.organization_id)), form.id, 'seen');
    response
      .set('cache-control', 'no-store')
      .type('html')
      .send(joinPage(page, hiddenFrom(form, request.query as PostedTexts)));
  }

  @Route('post', 'join/:slug', {
    role: 'anyone',
    summary: 'Join by a form',
    params: schema.slugParams,
    body: schema.postedForm,
    ownProof: true,
  })
  async join(@Param('slug') slug: string, @Req() request: Request, @Res() response: Response): Promise<void> {
    const form = await this.open(slug, request, response);
    if (!form) return;
    const p = PHRASES[this.language(request, form)];
    if (!(await this.posts.pass(request.ip ?? '')))
      return this.say(response, 429, p.tooMany, p.tooManyBody, this.language(request, form));
    const posted = textsOf(request.body);
    const page = await this.about(form, request);
    const organization = await this.team.organization(programScope(form.organization_id));
    this.allowFraming(response, form);
    if (posted[HONEYPOT]) return this.thank(response, page, organization);
    const read = readAnswer(form.definition, posted, {
      country: organization.country,
      types: page.types,
      choices: page.choices,
    });
    if (!read.ok) return this.mend(response, page, posted, read.faults);
    await this.joining.join(form, read.answer, {
      origin: request.ip ?? '',
      language: page.language,
      page: `${this.config.PUBLIC_URL}/join/${form.slug}${page.framed ? ' in another page' : ''}`,
    });
    const { redirect } = form.definition.thanks;
    if (redirect && !page.framed) return response.redirect(303, redirect);
    this.thank(response, page, organization);
  }

  @Route('post', 'join/:slug/begun', {
    role: 'anyone',
    summary: 'Somebody has begun to fill a form in',
    params: schema.slugParams,
    ownProof: true,
  })
  @HttpCode(204)
  async begun(@Param('slug') slug: string, @Req() request: Request): Promise<void> {
    const form = await this.forms.bySlug(this.database, slug);
    if (form?.is_open && (await this.begins.pass(request.ip ?? '')))
      await this.forms.count(this.database.read(programScope(form.organization_id)), form.id, 'begun');
  }

  @Route('get', 'join/:slug/privacy', {
    role: 'anyone',
    summary: 'What becomes of what people type into a form',
    params: schema.slugParams,
    query: schema.pageQuery,
  })
  async privacy(
    @Param('slug') slug: string,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    const form = await this.open(slug, request, response);
    if (!form) return;
    const { organization, language } = await this.about(form, request);
    response.type('html').send(privacyPage(organization, language));
  }

  @Route('get', 'join/:slug/qr.svg', {
    role: 'anyone',
    summary: 'The address of a form as a QR code',
    params: schema.slugParams,
  })
  async qrSvg(@Param('slug') slug: string, @Res() response: Response): Promise<void> {
    const { type, body } = await this.service.qr(slug, 'svg');
    response.type(type).send(body);
  }

  @Route('get', 'join/:slug/qr.png', {
    role: 'anyone',
    summary: 'The same to print',
    params: schema.slugParams,
  })
  async qrPng(@Param('slug') slug: string, @Res() response: Response): Promise<void> {
    const { type, body } = await this.service.qr(slug, 'png');
    response.type(type).send(body);
  }

  @Route('get', 'confirm/:token', {
    role: 'anyone',
    summary: 'The page to confirm by: shows a button, does nothing',
    params: schema.tokenParams,
  })
  async look(
    @Param('token') token: string,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    await this.confirmation(request, response, await this.confirmations.look(token), false);
  }

  @Route('post', 'confirm/:token', {
    role: 'anyone',
    summary: 'Confirm',
    params: schema.tokenParams,
    ownProof: true,
  })
  async confirm(
    @Param('token') token: string,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    await this.confirmation(
      request,
      response,
      await this.confirmations.confirm(token, request.ip ?? ''),
      true,
    );
  }

  @Route('get', 'never-ask/:token', {
    role: 'anyone',
    summary: 'The page to be asked no more by: shows a button',
    params: schema.tokenParams,
  })
  async neverAskPage(
    @Param('token') token: string,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    await this.neverAsked(request, response, await this.confirmations.neverAskLook(token), false);
  }

  @Route('post', 'never-ask/:token', {
    role: 'anyone',
    summary: 'Never ask this mailbox again (also the one-click POST of RFC 8058)',
    params: schema.tokenParams,
    ownProof: true,
  })
  @HttpCode(200)
  async neverAsk(
    @Param('token') token: string,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    await this.neverAsked(request, response, await this.confirmations.neverAsk(token), true);
  }

  private async neverAsked(
    request: Request,
    response: Response,
    row: ConfirmationRow | null,
    acted: boolean,
  ): Promise<void> {
    const language = languageOf(request, LANGUAGES, 'en');
    const p = PHRASES[language];
    if (!row) return this.say(response, 404, p.dead, p.deadBody, language);
    if (acted) return this.say(response, 200, p.neverAsk, p.neverAskDone, language);
    const button = `<form method="post"><button>${escapeHtml(p.neverAsk)}</button></form>`;
    const body = `<h1>${escapeHtml(p.neverAsk)}</h1><p>${escapeHtml(p.neverAskBody)}</p>${button}`;
    response
      .set('cache-control', 'no-store')
      .type('html')
      .send(supporterPage(p.neverAsk, body, { language }));
  }

  private async confirmation(
    request: Request,
    response: Response,
    found: ConfirmationOutcome,
    acted: boolean,
  ): Promise<void> {
    const plain = languageOf(request, LANGUAGES, 'en');
    if (found.kind === 'unknown')
      return this.say(response, 404, PHRASES[plain].dead, PHRASES[plain].deadBody, plain);
    const scope = programScope(found.row.organization_id);
    const organization = await this.team.organization(scope);
    const form = found.row.form_id
      ? await this.forms.definitionOf(this.database.read(scope), found.row.form_id, found.row.version ?? 1)
      : undefined;
    const language = languageOf(request, LANGUAGES, form?.language ?? 'en');
    const p = PHRASES[language];
    const names = { organization: organization.name, address: found.row.shown };
    const address = found.row.kind === 'address';
    if (found.kind === 'expired') return this.say(response, 410, p.expired, p.expiredBody, language);
    if (found.kind === 'again' || acted)
      return this.say(
        response,
        200,
        address ? p.addressDone : p.confirmed,
        phrase(address ? p.addressBody : p.confirmedBody, names),
        language,
      );
    const asks = found.row.asks.map((ask) => `<li>${lines(ask.words)}</li>`).join('');
    const what = address
      ? `<p>${escapeHtml(phrase(p.addressBody, names))}</p>`
      : `<p>${escapeHtml(phrase(p.confirmBody, names))}</p><ul>${asks}</ul>`;
    const body = `<h1>${escapeHtml(address ? p.addressTitle : p.confirmTitle)}</h1>${what}<form method="post"><button>${escapeHtml(p.confirmButton)}</button></form><p class="small">${escapeHtml(p.confirmNot)}</p>`;
    response
      .set('cache-control', 'no-store')
      .type('html')
      .send(supporterPage(p.confirmTitle, body, { language }));
  }

  /** The form behind an address, or a kind page that says why there is none. */
  private async open(slug: string, request: Request, response: Response): Promise<FormRow | null> {
    const form = await this.forms.bySlug(this.database, slug);
    if (form?.is_open) return form;
    const language = languageOf(request, LANGUAGES, form?.definition.language ?? 'en');
    const p = PHRASES[language];
    this.say(
      response,
      form ? 410 : 404,
      form ? p.closedForm : p.dead,
      form ? p.closedFormBody : p.deadBody,
      language,
    );
    return null;
  }

  private async about(form: FormRow, request: Request): Promise<JoinPage> {
    const db = this.database.read(programScope(form.organization_id));
    const ids = form.definition.items.flatMap((item) => (typeof item.of === 'number' ? [item.of] : []));
    const fields = ids.length > 0 ? await this.fields.all(db) : [];
    const types = new Map(fields.map((field) => [field.id, field.type]));
    const choices = new Map<number, string[]>();
    for (const id of ids) {
      const type = types.get(id);
      if (type === 'choice') choices.set(id, await this.fields.offered(db, id));
      // What was chosen together lies in one value.
      else if (type === 'choices')
        choices.set(id, [...new Set((await this.fields.offered(db, id)).flatMap(choicesOf))]);
    }
    const framed = (request.query as PostedTexts).frame === '1';
    const scope = programScope(form.organization_id);
    const own = await this.team.organization(scope);
    const chapter = (await this.team.chapters(scope)).find(({ id }) => id === form.definition.chapterId);
    const address = chapter?.postal_address || own.postal_address;
    const legalName = own.legal_name || own.name;
    const organization = {
      name: own.name,
      country: own.country,
      imprint: imprint(own, address),
      legalName,
      postalAddress: address,
      logo: logoOf(own),
    };
    return {
      slug: form.slug,
      form: form.definition,
      types,
      choices,
      language: this.language(request, form),
      framed,
      organization,
    };
  }

  /** The organization wrote the form in one language; only the program's own words can follow the browser. */
  private language(request: Request, form: FormRow): Language {
    return languageOf({ query: request.query, headers: {} }, LANGUAGES, form.definition.language);
  }

  private thank(response: Response, page: JoinPage, organization: OrganizationRow): void {
    response
      .status(200)
      .set('cache-control', 'no-store')
      .type('html')
      .send(thanksPage(page, organization.text_from));
  }

  private mend(
    response: Response,
    page: JoinPage,
    posted: PostedTexts,
    faults: readonly AnswerFault[],
  ): void {
    response
      .status(422)
      .set('cache-control', 'no-store')
      .type('html')
      .send(joinPage(page, posted, faults));
  }

  private say(response: Response, status: number, title: string, body: string, language: Language): void {
    response
      .status(status)
      .type('html')
      .send(supporterPage(title, `<h1>${escapeHtml(title)}</h1><p>${escapeHtml(body)}</p>`, { language }));
  }

  /**
   * Only pages that the organizer named may frame the form: whoever frames it could lay boxes over its boxes.
   */
  private allowFraming(response: Response, form: FormRow): void {
    const origins = form.definition.embedOn;
    if (origins.length === 0) return;
    const policy = String(response.getHeader('content-security-policy') ?? '').replace(
      /frame-ancestors[^;]*/,
      `frame-ancestors 'self' ${origins.join(' ')}`,
    );
    response.setHeader('content-security-policy', policy);
    response.removeHeader('x-frame-options');
  }
}
