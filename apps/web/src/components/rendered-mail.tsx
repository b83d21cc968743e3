import type { RenderedMail } from '@haycart/core';

/** A mail as it would be read: as HTML where it has any, in a frame in which nothing runs and nothing is loaded. */
export function RenderedMailView({ mail: { subject, text, html } }: { mail: RenderedMail }) {
  return (
    <div className="flex flex-col gap-2">
      <p className="font-semibold [overflow-wrap:anywhere]">{subject}</p>
      {html === null ? (
        <p className="whitespace-pre-line [overflow-wrap:anywhere]">{text}</p>
      ) : (
        <iframe
          sandbox=""
          title="The mail"
          srcDoc={`<meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'unsafe-inline'; img-src data:"><body style="margin:8px;font:14px/1.5 sans-serif">${html}`}
          className="h-64 w-full rounded border border-line bg-white"
        />
      )}
    </div>
  );
}
