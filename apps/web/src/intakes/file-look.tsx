import type { SheetLook } from '@haycart/api';
import { ENCODING_NAMES, ENCODINGS, LIMITS, type Encoding } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { attach } from '../api/client';
import { SelectField } from '../components/text-field';

/** Columns that are shown; the others are counted. */
const SHOWN = 6;

/** The first rows of a file as they would be read, and, where its encoding is a guess, the choice of another. */
export function FileLook({
  file,
  encoding,
  choose,
}: {
  file: File;
  encoding: Encoding | null;
  choose: (encoding: Encoding | null) => void;
}) {
  const isBook = /\.xlsx$/i.test(file.name);
  const look = useQuery({
    queryKey: ['file-look', file.name, file.size, file.lastModified, encoding],
    queryFn: () => {
      const begin = new File([file.slice(0, LIMITS.sheetLook.most - 1)], file.name, { type: file.type });
      return attach<SheetLook>(`/sheets/look${encoding ? `?encoding=${encoding}` : ''}`, begin);
    },
    // A workbook is only to be had whole.
    enabled: !isBook,
    retry: false,
    staleTime: Infinity,
    placeholderData: (before) => before,
  });
  if (isBook) return null;
  if (look.error)
    return (
      <p role="status" className="text-red">
        {look.error.message}
      </p>
    );
  if (!look.data) return <p className="text-muted">Reading its first rows</p>;
  const { rows, columns, sure } = look.data;
  const names = columns.length ? columns : [...new Set(rows.flatMap((row) => Object.keys(row)))];
  const more = names.length - SHOWN;
  return (
    <div className="flex flex-col gap-3" aria-busy={look.isFetching}>
      <div className="overflow-x-auto rounded border border-line">
        <table className="w-full text-small">
          <caption className="sr-only">The first rows of the file</caption>
          <thead>
            <tr className="border-b border-line text-left">
              {names.slice(0, SHOWN).map((name) => (
                <th key={name} scope="col" className="max-w-[180px] truncate px-2 py-1 font-semibold">
                  {name}
                </th>
              ))}
              {more > 0 && <th className="px-2 py-1 font-normal text-muted">{`and ${more} more`}</th>}
            </tr>
          </thead>
          <tbody>
            {rows.map((row, index) => (
              <tr key={index} className="border-b border-hair last:border-0">
                {names.slice(0, SHOWN).map((name) => (
                  <td key={name} className="max-w-[180px] truncate px-2 py-1">
                    {textOf(row[name])}
                  </td>
                ))}
                {more > 0 && <td />}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {(!sure || encoding) && (
        <SelectField
          label="Its letters are read as"
          help="The file does not say which. Choose the one in which the names above are right."
          value={encoding ?? look.data.encoding ?? ''}
          onChange={({ target }) => choose(target.value as Encoding)}
        >
          {ENCODINGS.every((one) => one !== look.data.encoding) && (
            <option value={look.data.encoding ?? ''}>Mixed: some lines in Windows-1252</option>
          )}
          {ENCODINGS.map((one) => (
            <option key={one} value={one}>
              {ENCODING_NAMES[one]}
            </option>
          ))}
        </SelectField>
      )}
    </div>
  );
}

function textOf(value: unknown): string {
  if (value === undefined || value === null) return '';
  return typeof value === 'object' ? JSON.stringify(value) : String(value as string);
}
