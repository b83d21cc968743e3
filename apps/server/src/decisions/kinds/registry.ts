import type { Type } from '@nestjs/common';
import { AnswerDecisions } from './answer/answer-decisions';
import { ApprovalDecisions } from './approval/approval-decisions';
import { AsideDecisions } from './aside/aside-decisions';
import type { DecisionKind } from './decision-kind';
import { DriftDecisions } from './drift/drift-decisions';
import { LinkDecisions } from './link/link-decisions';
import { LookAlikeDecisions } from './look-alike/look-alike-decisions';
import { RunDecisions } from './run/run-decisions';
import { UndeliveredDecisions } from './undelivered/undelivered-decisions';
import { WhichRecordDecisions } from './which-record/which-record-decisions';

/** Every kind of things that wait for a person. */
export const KIND_CLASSES: Type<DecisionKind>[] = [
  ApprovalDecisions,
  WhichRecordDecisions,
  DriftDecisions,
  RunDecisions,
  UndeliveredDecisions,
  LookAlikeDecisions,
  AnswerDecisions,
  LinkDecisions,
  AsideDecisions,
];
