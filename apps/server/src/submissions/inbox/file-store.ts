import { LIMITS } from '@haycart/core';
import type { WorkspaceTx } from '../../platform/database/database';
import { ProblemError } from '../../platform/errors/problem-error';
import { bytesOf, type ArrivedFile } from './arrived-file';

/** Keeps the files of a submission, within the quota of its intake and workspace. @throws ProblemError 422 */
export async function keepFiles(
  tx: WorkspaceTx,
  intakeId: string,
  submissionId: string,
  files: readonly ArrivedFile[],
): Promise<void> {
  await countFiles(tx, intakeId, files);
  for (const file of files)
    await tx.statement(
      'insert_file',
      'insert into submission_file (workspace_id, id, submission_id, name, type, bytes) values ($1, $2, $3, $4, $5, $6)',
      [tx.workspaceId, file.id, submissionId, file.name, file.type, await bytesOf(file)],
    );
}

async function countFiles(tx: WorkspaceTx, intakeId: string, files: readonly ArrivedFile[]): Promise<void> {
  const bytes = files.reduce((sum, { size }) => sum + size, 0);
  const [used] = await tx.statement<{ intake: string; others: string }>(
    'count_files',
    `insert into file_usage as u (workspace_id, intake_id, bytes) values ($1, $2, $3)
     on conflict (workspace_id, intake_id) do update set bytes = u.bytes + excluded.bytes
     returning bytes as intake, (select coalesce(sum(bytes), 0) from file_usage o where o.workspace_id = $1 and o.intake_id <> $2) as others`,
    [tx.workspaceId, intakeId, bytes],
  );
  const intake = Number(used!.intake);
  const over =
    intake > LIMITS.intakeFiles.most
      ? 'this intake'
      : intake + Number(used!.others) > LIMITS.workspaceFiles.most
        ? 'this workspace'
        : null;
  if (over)
    throw new ProblemError('files-full', `No more files are kept for ${over}. Send it without files.`, [
      { at: `/${files[0]!.part}`, code: 'files-full', message: `No more files are kept for ${over}.` },
    ]);
}
