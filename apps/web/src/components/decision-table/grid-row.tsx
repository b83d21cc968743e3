import type { RowFigure } from '@haycart/api';
import type { RowFinding } from '@haycart/core';
import { GripVertical } from 'lucide-react';
import type { ReactNode } from 'react';
import { CountedSubmissions } from './counted-submissions';
import { isInside, type CellAt, type Span } from './selection';
import { ROW_HEIGHT } from './measures';

/** One row of the grid: its number, how many submissions it took, its cells. */
export function GridRow({
  index,
  top,
  template,
  inputs,
  texts,
  isOtherwise,
  finding,
  unsure,
  hasCounts,
  figure,
  showOne,
  isSample,
  span,
  at,
  editor,
  select,
  begin,
  dropped,
}: {
  index: number;
  top: number;
  template: string;
  inputs: number;
  texts: readonly string[];
  isOtherwise: boolean;
  finding: RowFinding | undefined;
  /** Columns of which nothing exact can be said. */
  unsure: readonly number[];
  hasCounts: boolean;
  figure: RowFigure | undefined;
  showOne: ((submission: string) => void) | undefined;
  isSample: boolean;
  span: Span;
  at: CellAt;
  /** What stands in the cell that is being typed into. */
  editor: ReactNode;
  select: (column: number, wider: boolean) => void;
  begin: (column: number) => void;
  /** Another row was dropped here. */
  dropped: (from: number) => void;
}) {
  const isNever = finding?.takenBefore !== undefined || finding?.never !== undefined;
  return (
    <div
      role="row"
      aria-rowindex={index + 2}
      className={`absolute inset-x-0 grid border-b border-hair ${isSample ? 'bg-straw-soft' : 'bg-raised'} ${isOtherwise ? 'border-t border-t-line' : ''}`}
      style={{ top, height: ROW_HEIGHT, gridTemplateColumns: template }}
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        const from = Number(event.dataTransfer.getData('application/x-row'));
        if (Number.isInteger(from) && from !== index && event.dataTransfer.types.includes('application/x-row'))
          dropped(from);
      }}
    >
      <div
        role="rowheader"
        className={`group flex items-center justify-end gap-0.5 pr-2 font-mono text-[12.5px] ${isNever ? 'text-brick' : 'text-muted'}`}
        draggable={!isOtherwise}
        title={isOtherwise ? undefined : 'Drag to another place, or Alt with an arrow'}
        onDragStart={(event) => event.dataTransfer.setData('application/x-row', String(index))}
      >
        {!isOtherwise && (
          <GripVertical className="size-3 flex-none cursor-grab opacity-0 group-hover:opacity-60" aria-hidden />
        )}
        {isOtherwise ? <span aria-label="Otherwise">–</span> : index + 1}
      </div>
      {hasCounts && (
        <div
          role="gridcell"
          className="flex items-center justify-end border-l border-hair pr-2 font-mono text-[12.5px] text-muted"
        >
          {figure &&
            showOne &&
            (figure.count ? (
              <CountedSubmissions
                figure={figure}
                id={`took-${index}`}
                label={isOtherwise ? 'What no row took' : `What row ${index + 1} took`}
                className="hover:underline"
                show={showOne}
              />
            ) : (
              0
            ))}
        </div>
      )}
      {isOtherwise && (
        <div
          role="gridcell"
          className="flex items-center border-l border-hair px-2 text-muted"
          style={{ gridColumn: `${hasCounts ? 3 : 2} / span ${inputs}` }}
          onClick={() => select(0, false)}
          id={`cell-${index}-0`}
        >
          otherwise
        </div>
      )}
      {texts.map((text, column) =>
        isOtherwise && column < inputs ? null : (
          <Cell
            key={column}
            id={`cell-${index}-${column}`}
            text={text}
            isInput={column < inputs}
            isFirstOutput={column === inputs}
            isNote={column === texts.length - 1}
            isNever={isNever}
            wrong={
              finding?.unreadable?.find((one) => one.column === column)?.text ??
              (finding?.never?.includes(column) ? 'No value can ever meet this.' : undefined)
            }
            isUnsure={unsure.includes(column)}
            isAt={at.row === index && at.column === column}
            isSelected={isInside({ row: index, column }, span)}
            editor={at.row === index && at.column === column ? editor : null}
            select={(wider) => select(column, wider)}
            begin={() => begin(column)}
          />
        ),
      )}
    </div>
  );
}

function Cell({
  id,
  text,
  isInput,
  isFirstOutput,
  isNote,
  isNever,
  wrong,
  isUnsure,
  isAt,
  isSelected,
  editor,
  select,
  begin,
}: {
  id: string;
  text: string;
  isInput: boolean;
  isFirstOutput: boolean;
  isNote: boolean;
  isNever: boolean;
  wrong: string | undefined;
  isUnsure: boolean;
  isAt: boolean;
  isSelected: boolean;
  editor: ReactNode;
  select: (wider: boolean) => void;
  begin: () => void;
}) {
  const ground = isInput ? '' : isNote ? '' : 'bg-ground/50';
  const ink = wrong ? 'text-brick' : isNote || (isInput && text === '') || isNever ? 'text-muted' : '';
  return (
    <div
      id={id}
      role="gridcell"
      aria-selected={isSelected}
      aria-invalid={wrong !== undefined}
      title={wrong ?? (isUnsure ? `${text} (nothing exact can be said of this test)` : text)}
      onMouseDown={(event) => {
        if (editor === null) select(event.shiftKey);
      }}
      onDoubleClick={begin}
      className={`relative flex min-w-0 items-center px-2 ${isFirstOutput ? 'border-l-2 border-ink' : 'border-l border-hair'} ${ground} ${ink} ${isSelected && !isAt ? 'bg-slate-soft' : ''} ${isAt ? 'outline-2 -outline-offset-2 outline-green' : ''}`}
    >
      <span className={`truncate ${wrong ? 'underline decoration-dotted underline-offset-2' : ''}`}>
        {text === '' && isInput ? 'any' : text}
      </span>
      {isUnsure && (
        <span className="ml-1 flex-none text-muted" aria-label="not checked">
          ~
        </span>
      )}
      {editor}
    </div>
  );
}
