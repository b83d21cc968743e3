import type { PictureShape } from '@haycart/api';
import { useMutation } from '@tanstack/react-query';
import { Upload } from 'lucide-react';
import { useRef } from 'react';
import { attach } from '../api/client';
import { IconButton } from '../components/button';
import { messageOf } from '../components/status';
import { BOX } from './row';

/** The address of a picture on the web, or a picture from this computer, which is uploaded and gets one. */
export function PictureRow({
  label,
  value,
  change,
}: {
  label: string;
  value: string | undefined;
  change: (address: string | undefined) => void;
}) {
  const chooser = useRef<HTMLInputElement>(null);
  const upload = useMutation({
    mutationFn: (file: File) => attach<PictureShape>('/form-pictures', file),
    onSuccess: ({ address }) => change(address),
  });
  return (
    <div className="grid grid-cols-[88px_minmax(0,1fr)] items-center gap-2">
      <span className="text-small text-muted">{label}</span>
      <span className="flex items-center gap-1">
        {value?.startsWith('/') && (
          <img src={value} alt="" className="size-8 flex-none rounded-sm border border-line object-cover" />
        )}
        <input
          aria-label={label}
          className={BOX}
          placeholder="https://"
          value={value ?? ''}
          onChange={({ target }) => change(target.value === '' ? undefined : target.value)}
        />
        <IconButton
          label={`Upload: ${label}`}
          className="text-muted"
          disabled={upload.isPending}
          onClick={() => chooser.current?.click()}
        >
          <Upload className="size-3.5" aria-hidden />
        </IconButton>
        <input
          ref={chooser}
          type="file"
          hidden
          accept="image/png,image/jpeg,image/gif,image/webp"
          onChange={({ target }) => {
            const file = target.files?.[0];
            target.value = '';
            if (file) upload.mutate(file);
          }}
        />
      </span>
      {upload.isError && (
        <p role="alert" className="col-span-2 text-small text-brick">
          {messageOf(upload.error)}
        </p>
      )}
    </div>
  );
}
