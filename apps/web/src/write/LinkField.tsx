import { t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { useId } from 'react';
import { STANDARD_NAMES } from '@goodword/core/merge';
import { isSafeLink } from '@goodword/core/letter';
import { reading } from '../app/reading';
import { Labelled } from '../ui/basics';

/** The merge field of where one gives. */
export const GIVING_PAGE = `{${STANDARD_NAMES.find(({ key }) => key === 'link.giving')!.name}}`;

/** Where something leads: a whole address, or one of the house's own by its name, which typing finds. */
export function LinkField({
  label,
  value,
  onChange,
  required = true,
}: {
  label: string;
  value: string;
  onChange: (href: string) => void;
  required?: boolean;
}) {
  const list = useId();
  const { data = [] } = useQuery(reading('merge-fields'));
  return (
    <Labelled
      label={label}
      hint={t`A whole address, such as https://lanternferry.test/give, or {Link: giving page}`}
    >
      <input
        className="input"
        list={list}
        required={required}
        maxLength={1000}
        value={value}
        ref={(input) =>
          input?.setCustomValidity(
            value === '' || isSafeLink(value)
              ? ''
              : t`Write a whole address: https://…, mailto:… or tel:…, or a link of the house in braces.`,
          )
        }
        onChange={({ target }) => onChange(target.value)}
      />
      <datalist id={list}>
        {data
          .filter(({ group }) => group === 'Link')
          .map(({ name }) => (
            <option key={name} value={`{${name}}`} />
          ))}
      </datalist>
    </Labelled>
  );
}
