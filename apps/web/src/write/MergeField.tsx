import {
  useId,
  useLayoutEffect,
  useRef,
  useState,
  type InputHTMLAttributes,
  type TextareaHTMLAttributes,
} from 'react';
import { registryOf, type Registry } from '@goodword/core/merge';
import { openBrace, withField } from './braces';
import { MergeOffer, optionId, useOffer } from './MergeOffer';
import { MergePicker } from './MergePicker';

type Field = HTMLInputElement | HTMLTextAreaElement;
interface Props {
  value: string;
  registry: Registry | null;
  onChange: (text: string) => void;
  /** Several lines. */
  long?: boolean;
  /** Where the button that lists all fields stands; nowhere where it is not given. */
  beside?: 'line' | 'above';
}
type Rest = Omit<
  InputHTMLAttributes<HTMLInputElement> & TextareaHTMLAttributes<HTMLTextAreaElement>,
  keyof Props
>;

const EMPTY: Registry = registryOf([]);

/** A line or a text in which typing a brace offers the merge fields; the button beside it lists them all. */
export function MergeField({ value, registry, onChange, long, beside, readOnly, ...rest }: Props & Rest) {
  const field = useRef<Field>(null);
  const [caret, setCaret] = useState<number | null>(null);
  const behind = useRef<number | null>(null);
  const id = useId();
  const put = (name: string) => {
    const at = field.current?.selectionStart ?? value.length;
    const next = withField(value, at, name);
    behind.current = next.caret;
    onChange(next.text);
    setCaret(next.caret);
  };
  // As soon as what was put in is shown, and before the next key: what is typed on goes behind it.
  useLayoutEffect(() => {
    if (behind.current === null) return;
    field.current?.focus();
    field.current?.setSelectionRange(behind.current, behind.current);
    behind.current = null;
  }, [value]);
  const offer = useOffer(
    readOnly || caret === null ? null : openBrace(value.slice(0, caret)),
    registry ?? EMPTY,
    put,
  );
  const moved = () =>
    setCaret(document.activeElement === field.current ? (field.current?.selectionStart ?? null) : null);
  const shared = {
    ...rest,
    ref: field as never,
    readOnly,
    value,
    'aria-autocomplete': 'list' as const,
    'aria-controls': offer.names.length > 0 ? id : undefined,
    'aria-activedescendant': offer.names.length > 0 ? optionId(id, offer.at) : undefined,
    onChange: (event: { target: Field }) => (
      onChange(event.target.value),
      setCaret(event.target.selectionStart)
    ),
    onSelect: moved,
    onBlur: () => setCaret(null),
    onKeyDown: (event: React.KeyboardEvent) => {
      if (!offer.onKey(event)) return;
      event.preventDefault();
      event.stopPropagation();
    },
  };
  const picker = registry && !readOnly && beside && <MergePicker registry={registry} onPick={put} />;
  return (
    <div className={`relative ${beside === 'line' ? 'flex gap-1' : `flex flex-col ${long ? 'grow' : ''}`}`}>
      {beside === 'above' && <div className="self-end pb-2">{picker}</div>}
      {long ? <textarea {...shared} /> : <input {...shared} />}
      {beside === 'line' && picker}
      <MergeOffer id={id} offer={offer} onPick={put} />
    </div>
  );
}
