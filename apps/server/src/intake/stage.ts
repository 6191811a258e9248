import type { RowVerdict } from '@goodword/core/contract';
import { cleanRow, matchRow, type Candidate, type CleanRow, type IntakePlan, type Match } from '@goodword/core/intake';
import type { StagedRow } from './batches.repository';

type Address = { kind: 'email' | 'mobile'; normal: string };

/** Who is at an address: people on file, then people of earlier rows under minus their row number. */
export type AtAddress = (address: Address) => readonly Candidate[];

/**
 * Turns the rows of a file into staged rows, one after the other: each is cleaned, matched against the people on file
 * and against the rows before it, and given its verdict.
 */
export class Stager {
  private readonly earlier = new Map<string, Candidate[]>();

  constructor(
    private readonly plan: IntakePlan,
    private readonly country: string,
  ) {}

  clean(cells: readonly string[]): CleanRow {
    return cleanRow(cells, this.plan.columns, this.country);
  }

  stage(rowNo: number, row: CleanRow, onFile: AtAddress): StagedRow {
    const match = row.fatal ? null : matchRow(row, this.candidates(row, onFile));
    const sameId = match?.kind === 'same' ? match.id : null;
    if (match && match.kind !== 'doubt') this.remember(row, sameId ?? -rowNo);
    return {
      rowNo,
      verdict: this.verdict(match),
      sameAsRow: sameId !== null && sameId < 0 ? -sameId : null,
      supporterId: sameId !== null && sameId > 0 ? sameId : null,
      firstName: row.firstName,
      lastName: row.lastName,
      email: row.email,
      mobile: row.mobile,
      emailSays: row.consent.email ?? null,
      textSays: row.consent.text ?? null,
      reason: this.reason(row, match),
      values: row.values.map(({ column, value }) => ({ fieldId: this.fieldId(column), value })),
    };
  }

  private fieldId(column: number): number {
    const choice = this.plan.columns[column]!;
    return choice.to === 'field' ? choice.fieldId : -(column + 1);
  }

  private addresses(row: CleanRow): Address[] {
    return (['email', 'mobile'] as const).flatMap((kind) => (row[kind] ? [{ kind, normal: row[kind].normal }] : []));
  }

  private candidates(row: CleanRow, onFile: AtAddress): Candidate[] {
    return this.addresses(row).flatMap((address) => [...onFile(address), ...(this.earlier.get(`${address.kind}:${address.normal}`) ?? [])]);
  }

  /** People on file are found there again; only rows that make someone need to be remembered. */
  private remember(row: CleanRow, id: number): void {
    for (const { kind, normal } of this.addresses(row)) {
      const key = `${kind}:${normal}`;
      const known = this.earlier.get(key) ?? [];
      if (!known.some((candidate) => candidate.id === id))
        this.earlier.set(key, [...known, { id, firstName: row.firstName, lastName: row.lastName, by: kind }]);
    }
  }

  private verdict(match: Match | null): RowVerdict {
    switch (match?.kind) {
      case undefined:
        return 'failed';
      case 'new':
        return 'new';
      case 'shares':
        return 'shares';
      case 'same':
        return this.plan.existing === 'leave' ? 'here' : 'update';
      case 'doubt':
        return 'look';
    }
  }

  private reason(row: CleanRow, match: Match | null): string {
    if (row.fatal) return row.fatal;
    if (match?.kind === 'doubt') return 'the email belongs to one person and the mobile to another; correct one of them';
    return row.faults.map((fault) => `${fault.reason} (left out)`).join('; ');
  }
}
