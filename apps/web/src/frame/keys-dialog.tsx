import { Dialog } from '../components/dialog';
import { Key } from '../components/sheet';

const KEYS: { where: string; keys: [string[], string][] }[] = [
  {
    where: 'Everywhere',
    keys: [
      [['Ctrl', 'K'], 'find anything'],
      [['?'], 'these keys'],
      [['Esc'], 'close what is open'],
    ],
  },
  {
    where: 'In lists',
    keys: [
      [['j', '↓'], 'next line'],
      [['k', '↑'], 'line before'],
      [['Enter'], 'open the line'],
      [['x'], 'choose the line'],
      [['Shift', 'click'], 'choose all up to this box'],
      [['/'], 'search the submissions'],
    ],
  },
  {
    where: 'To decide',
    keys: [
      [['j', 'k'], 'next and one before'],
      [['r'], 'repair, run again, resume, release'],
      [['1', '…', '9'], 'what a new answer means'],
      [['y', 'n'], 'say yes or no, where one is asked first'],
      [['o'], 'make it an option'],
      [['x'], 'leave it'],
      [['l'], 'later'],
      [['a'], 'the same for all alike'],
    ],
  },
  {
    where: 'In the tasks',
    keys: [[['d'], 'mark the chosen ones as done']],
  },
  {
    where: 'In the pipeline',
    keys: [
      [['1', '…', '7'], 'move the card in focus to that stage'],
      [['Tab'], 'next card'],
    ],
  },
  {
    where: 'In the set-up of a pipeline',
    keys: [
      [['Alt', '↑'], 'move the stage up'],
      [['Alt', '↓'], 'move the stage down'],
    ],
  },
  {
    where: 'On a route sheet',
    keys: [
      [['['], 'sample before'],
      [[']'], 'next sample'],
    ],
  },
];

/** The keys of every page. */
export function KeysDialog({ open, close }: { open: boolean; close: () => void }) {
  return (
    <Dialog open={open} close={close} title="Keys">
      <div className="grid gap-4 sm:grid-cols-2">
        {KEYS.map(({ where, keys }) => (
          <section key={where}>
            <h3 className="mb-1 text-[14px]">{where}</h3>
            <dl className="flex flex-col gap-1">
              {keys.map(([names, does]) => (
                <div key={does} className="flex gap-3">
                  <dt className="flex w-20 flex-none items-start gap-1">
                    {names.map((name) => (name === '…' ? '…' : <Key key={name}>{name}</Key>))}
                  </dt>
                  <dd className="text-muted">{does}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
    </Dialog>
  );
}
