import { t } from '@lingui/core/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../app/api';
import { refresh } from '../app/refresh';
import { Button, Labelled, ProblemNote } from '../ui/basics';
import { Drawer } from '../ui/dialogs';

/** A list made while a feed is being said: public, with what supporters read, or kept to the team. */
export function NewListHere({ onClose, onMade }: { onClose: () => void; onMade: (id: number) => void }) {
  const [values, setValues] = useState({ name: '', isPublic: true, description: '', why: '' });
  const queryClient = useQueryClient();
  const make = useMutation({
    mutationFn: () => api.post('lists', { body: values }),
    onSuccess: ({ id }) => (onMade(id), void refresh(queryClient, 'lists')),
  });
  const field = (key: 'name' | 'description' | 'why', label: string, hint?: string) => (
    <Labelled label={label} hint={hint}>
      <input
        className="input"
        required
        maxLength={key === 'name' ? 120 : 500}
        value={values[key]}
        onChange={({ target }) => setValues({ ...values, [key]: target.value })}
      />
    </Labelled>
  );
  return (
    <Drawer open onClose={onClose} title={t`Make a list`}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (!make.isPending) make.mutate();
        }}
      >
        {field('name', t`Name`)}
        <label className="flex gap-2 items-center">
          <input
            type="checkbox"
            className="accent-[#0F766B]"
            checked={values.isPublic}
            onChange={() => setValues({ ...values, isPublic: !values.isPublic })}
          />
          {t`Supporters see it, on forms and on their preference page`}
        </label>
        {values.isPublic && (
          <>
            {field('description', t`What it is`, t`As supporters read it.`)}
            {field('why', t`Why we write to you`, t`It stands at the foot of what is sent to it.`)}
          </>
        )}
        <ProblemNote error={make.error} />
        <Button
          weight="main"
          type="submit"
          className="self-start"
          disabled={make.isPending}
        >{t`Make it`}</Button>
      </form>
    </Drawer>
  );
}
