import { said } from '../../common';
import type { FieldKind, FieldValue } from '../field-kind';
import { fileOf } from '../files';

const fileName = ({ text }: FieldValue) => (text ? (fileOf(text)?.name ?? '') : '');

/** A file, which is uploaded and not typed. */
export const fileKind: FieldKind = {
  kept: 'text',
  asks: ['filled', 'empty'],
  read: () => ({ ok: false, reason: said('value.file') }),
  write: fileName,
  iso: fileName,
};
