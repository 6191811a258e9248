import { t } from '@lingui/core/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef } from 'react';
import { api, fileForm } from '../app/api';
import { Button, ProblemNote } from '../ui/basics';
import { keyOf } from '../app/reading';

export function Logo({ src, may }: { src: string | null; may: boolean }) {
  const queryClient = useQueryClient();
  const input = useRef<HTMLInputElement>(null);
  const onSuccess = () => queryClient.invalidateQueries({ queryKey: keyOf('organization') });
  const put = useMutation({
    mutationFn: (file: File) => api.put('organization/logo', { files: fileForm(file) }),
    onSuccess,
  });
  const drop = useMutation({ mutationFn: () => api.delete('organization/logo'), onSuccess });
  return (
    <div className="flex flex-col gap-2">
      <span className="font-semibold text-[13px]">{t`Logo on forms and supporters’ pages`}</span>
      <div className="flex items-center gap-3">
        {src ? (
          <img src={src} alt={t`The logo`} className="max-h-[56px] max-w-[180px]" />
        ) : (
          <span className="text-ink2">{t`None`}</span>
        )}
        {may && (
          <>
            <input
              ref={input}
              type="file"
              accept="image/*"
              className="hidden"
              aria-label={t`Picture of the logo`}
              onChange={(event) => {
                const file = event.target.files?.[0];
                event.target.value = '';
                if (file) put.mutate(file);
              }}
            />
            <Button disabled={put.isPending} onClick={() => input.current?.click()}>
              {src ? t`Change` : t`Choose a picture`}
            </Button>
            {src && <Button onClick={() => drop.mutate()}>{t`Take away`}</Button>}
          </>
        )}
      </div>
      <ProblemNote error={put.error ?? drop.error} />
    </div>
  );
}
