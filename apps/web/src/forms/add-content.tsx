import { CONTENT_TYPES, newItemName, type Content, type ContentTypeName, type FormDefinition } from '@haycart/core';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { Button } from '../components/button';
import { Popover } from '../components/popover';
import { CONTENT_WORDS } from './item-words';

const FIRST_WORDS: Partial<Record<ContentTypeName, string>> = {
  step: 'Next step',
  heading: 'Heading',
  'text-block': 'Some words.',
};

/** Adds what stands between questions, or a new step. */
export function AddContent({ form, add }: { form: FormDefinition; add: (content: readonly Content[]) => void }) {
  const [open, setOpen] = useState(false);
  const put = (type: ContentTypeName) => {
    const text = FIRST_WORDS[type];
    add([{ name: newItemName(type, form), type, ...(text ? { text } : {}) }]);
    setOpen(false);
  };
  return (
    <Popover
      label="Add content"
      open={open}
      onOpenChange={setOpen}
      trigger={
        <Button>
          <Plus className="size-4" aria-hidden /> Add content
        </Button>
      }
    >
      {CONTENT_TYPES.map((type) => (
        <button
          key={type}
          type="button"
          onClick={() => put(type)}
          className="block w-full rounded px-2 py-1 text-left hover:bg-straw-soft"
        >
          {CONTENT_WORDS[type]}
        </button>
      ))}
    </Popover>
  );
}
