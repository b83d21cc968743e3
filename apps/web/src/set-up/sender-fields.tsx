import type { MailSender } from '@haycart/api';
import { TextField } from '../components/text-field';

/** In whose name mail goes, and where answers go. */
export function SenderFields({
  sender: { fromName, fromAddress, replyTo },
  put,
  errorAt,
}: {
  sender: MailSender;
  put: (change: Partial<MailSender>) => void;
  errorAt: (at: string) => string | undefined;
}) {
  return (
    <>
      <TextField
        label="From, name"
        placeholder="Quillfern Glasshouses"
        value={fromName}
        error={errorAt('/fromName')}
        onChange={({ target }) => put({ fromName: target.value })}
      />
      <TextField
        label="From, address"
        type="email"
        placeholder="hello@quillfern.example"
        value={fromAddress}
        error={errorAt('/fromAddress')}
        onChange={({ target }) => put({ fromAddress: target.value.trim() })}
      />
      <TextField
        label="Answers go to"
        type="email"
        placeholder="the same address"
        value={replyTo ?? ''}
        error={errorAt('/replyTo')}
        onChange={({ target }) => put({ replyTo: target.value.trim() || null })}
      />
    </>
  );
}
