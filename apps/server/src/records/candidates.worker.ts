import { workerData } from 'node:worker_threads';
import type { Destination } from '@haycart/core';
import { Database } from '../platform/database/database';
import { answerQuestions } from '../platform/threads/answer-questions';
import type { CandidatesAsked, CandidateSearchData } from './candidate-search.service';
import { likelyCandidates, type Candidates } from './candidates';

/** Finds and compares those that may be meant, over connections of its own. */
const { databaseUrl, connections } = workerData as CandidateSearchData;
const database = new Database(databaseUrl, connections);
const models = new Map<string, Destination['likeness']>();

answerQuestions<CandidatesAsked, Candidates>(({ workspaceId, sought, learned }) => {
  if (learned) models.set(workspaceId, learned.likeness);
  const likeness = models.get(workspaceId);
  return database.inWorkspace(workspaceId, (tx) => likelyCandidates(tx, sought, likeness));
});
