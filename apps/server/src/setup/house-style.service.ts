import { Inject, Injectable } from '@nestjs/common';
import { contrast, LEAST_CONTRAST, PAPER, USUAL_STYLE, type HouseStyle } from '@goodword/core/letter';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { Invalid } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { stillAs } from '../platform/versions';
import { sentence } from '../platform/words';
import { TeamRepository } from '../team/team.repository';
import { OrganizationRepository } from './organization.repository';

/** How the letters of the house look. */
@Injectable()
export class HouseStyleService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(OrganizationRepository) private readonly organizations: OrganizationRepository,
  ) {}

  async style(scope: AccessScope): Promise<HouseStyle> {
    return (await this.team.organization(scope)).house_style ?? USUAL_STYLE;
  }

  /** Links have to be read on white; what stands on a button is chosen by its colour. */
  async save(scope: AccessScope, { style, was }: { style: HouseStyle; was: HouseStyle }): Promise<void> {
    const ratio = contrast(style.accent, PAPER);
    if (ratio < LEAST_CONTRAST)
      throw new Invalid([
        {
          field: 'style.accent',
          code: 'contrast',
          message: sentence('style.contrast', { colour: style.accent, ratio: ratio.toFixed(2) }),
        },
      ]);
    await this.database.writeUnlogged(scope, async (tx) => {
      const { house_style: before } = await this.organizations.lockForUpdate(tx);
      stillAs(was, before ?? USUAL_STYLE, 'how letters look');
      await this.organizations.change(tx, { house_style: JSON.stringify(style) });
      await audit(tx, 'change', { organization: scope.organizationId }, 'How letters look changed');
    });
  }
}
