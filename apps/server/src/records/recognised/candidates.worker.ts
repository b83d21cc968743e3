import { workerData } from 'node:worker_threads';
import type { Destination, FoundPair } from '@haycart/core';
import { Database } from '../../platform/database/database';
import { answerQuestions } from '../../platform/threads/answer-questions';
import type { CandidateSearchData, CandidatesAsked, PairsAsked } from './candidate-search.service';
import { foundAround, likelyCandidates, type Candidates } from './candidates';

/** Finds and compares those that may be meant, or the same, over connections of its own. */
const { databaseUrl, connections } = workerData as CandidateSearchData;
const database = new Database(databaseUrl, connections);
const models = new Map<string, Destination['likeness']>();

answerQuestions<CandidatesAsked | PairsAsked, Candidates | FoundPair[]>((asked) => {
  const { workspaceId } = asked;
  if ('around' in asked) return database.inWorkspace(workspaceId, (tx) => foundAround(tx, asked.around));
  if (asked.learned) models.set(workspaceId, asked.learned.likeness);
  const likeness = models.get(workspaceId);
  return database.inWorkspace(workspaceId, (tx) => likelyCandidates(tx, asked.sought, likeness));
});
