import type { CampaignLink } from '@haycart/api';
import { Download } from 'lucide-react';
import { renderSVG } from 'uqr';
import { Button } from '../../components/button';
import { Dialog } from '../../components/dialog';
import { saveAs } from '../../components/save-as';

/** The link as a QR code (ISO/IEC 18004), for what is printed. */
export function QrDialog({ link: { address }, name, close }: { link: CampaignLink; name: string; close: () => void }) {
  // Level Q: it can still be read when a quarter of it is damaged.
  const svg = renderSVG(address, { ecc: 'Q', border: 4 });
  return (
    <Dialog open close={close} title={`QR code: ${name}`}>
      <img
        alt={`QR code of ${address}`}
        className="mx-auto size-64 rounded bg-white"
        src={`data:image/svg+xml;utf8,${encodeURIComponent(svg)}`}
      />
      <p className="mt-3 text-small break-all text-muted">{address}</p>
      <div className="mt-4 flex justify-end">
        <Button onClick={() => saveAs('qr-code.svg', 'image/svg+xml', svg)}>
          <Download className="size-4" aria-hidden /> As SVG
        </Button>
      </div>
    </Dialog>
  );
}
