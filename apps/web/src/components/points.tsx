import { StateShape } from './state-shape';

/** Sentences under a heading, each with the shape of what it means. */
export function Points({
  title,
  state,
  points,
}: {
  title: string;
  state: 'failed' | 'written' | 'held';
  points: readonly string[];
}) {
  return (
    <section>
      <h3 className="mb-1 text-[14px]">{title}</h3>
      <ul className="flex flex-col gap-1">
        {points.map((point, index) => (
          <li key={index} className="flex gap-2">
            <span className="flex h-5 flex-none items-center">
              <StateShape state={state} />
            </span>
            {point}
          </li>
        ))}
      </ul>
    </section>
  );
}
