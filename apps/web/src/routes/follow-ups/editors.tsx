import {
  CircleCheck,
  FileText,
  ListPlus,
  Mail,
  MessageSquare,
  PencilLine,
  Send,
  SquareCheck,
  StickyNote,
  Tag,
} from 'lucide-react';
import type { Write } from '@haycart/core';
import type { FollowUpEditor } from './editor';
import { ConsentEditor } from './consent-editor';
import { DocumentEditor } from './document-editor';
import { FieldEditor } from './field-editor';
import { MailEditor } from './mail-editor';
import { markEditor } from './mark-editor';
import { MessageEditor } from './message-editor';
import { NoteEditor } from './note-editor';
import { PostEditor } from './post-editor';
import { TaskEditor } from './task-editor';

/** What is most worth a task or a note: the sale, and else the last that is written. */
const mainOf = (writes: readonly Write[]) => (writes.find(({ record }) => record === 'deal') ?? writes.at(-1))?.as;

/** By what `do` names. A kind without an editor is kept as it is, and not offered. */
export const EDITORS: Readonly<Record<string, FollowUpEditor>> = {
  task: {
    Icon: SquareCheck,
    Editor: TaskEditor,
    begin: (writes) => {
      const on = mainOf(writes);
      return on === undefined
        ? null
        : { do: 'task', on, title: { parts: [] }, due: { in: 2, unit: 'hours', working: true } };
    },
  },
  note: {
    Icon: StickyNote,
    Editor: NoteEditor,
    begin: (writes) => {
      const on = mainOf(writes);
      return on === undefined ? null : { do: 'note', on, body: { parts: [] } };
    },
  },
  document: {
    Icon: FileText,
    Editor: DocumentEditor,
    begin: (writes) => {
      const on = mainOf(writes);
      return on === undefined ? null : { do: 'document', on };
    },
  },
  message: {
    Icon: MessageSquare,
    Editor: MessageEditor,
    begin: (writes) => {
      const link = mainOf(writes);
      return {
        do: 'message',
        to: { channel: '' },
        by: 'chat',
        body: { parts: [] },
        ...(link === undefined ? {} : { link }),
      };
    },
  },
  mail: { Icon: Mail, Editor: MailEditor, begin: () => ({ do: 'mail', to: 'visitor', template: '' }) },
  consent: {
    Icon: CircleCheck,
    Editor: ConsentEditor,
    begin: (writes) => {
      const on = writes.find(({ record }) => record === 'contact')?.as;
      return on === undefined ? null : { do: 'consent', on, channel: 'email', state: 'given', words: { parts: [] } };
    },
  },
  tag: { Icon: Tag, ...markEditor('tag', 'tags') },
  list: { Icon: ListPlus, ...markEditor('list', 'lists') },
  field: {
    Icon: PencilLine,
    Editor: FieldEditor,
    begin: (writes) => {
      const on = mainOf(writes);
      return on === undefined ? null : { do: 'field', on, field: '', value: { parts: [] } };
    },
  },
  post: { Icon: Send, Editor: PostEditor, begin: () => ({ do: 'post', to: '' }) },
};
