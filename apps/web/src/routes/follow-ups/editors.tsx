import { ListPlus, Send, Tag } from 'lucide-react';
import type { FollowUpEditor } from './editor';
import { markEditor } from './mark-editor';
import { PostEditor } from './post-editor';

/** By what `do` names. A kind without an editor is kept as it is, and not offered. */
export const EDITORS: Readonly<Record<string, FollowUpEditor>> = {
  tag: { Icon: Tag, ...markEditor('tag', 'tags') },
  list: { Icon: ListPlus, ...markEditor('list', 'lists') },
  post: { Icon: Send, Editor: PostEditor, begin: () => ({ do: 'post', to: '' }) },
};
