import { useRef, useState } from 'react';
import { FormDialog } from './FormDialog';
import { TextField } from './TextField';

interface AskProps {
  readonly title: string;
  readonly label: string;
  readonly value: string;
  readonly done: string;
  readonly onDone: (value: string) => void;
  readonly onClose: () => void;
}

/** Asks for one line of text in a dialog. An empty answer cannot be given. */
export function Ask({ title, label, value, done, onDone, onClose }: AskProps) {
  const [text, setText] = useState(value);
  const input = useRef<HTMLInputElement>(null);
  const submit = (): void => {
    onDone(text.trim());
    onClose();
  };
  return (
    <FormDialog title={title} done={done} canEnd={text.trim() !== ''} first={input} onDone={submit} onClose={onClose}>
      <TextField ref={input} label={label} value={text} onChange={setText} />
    </FormDialog>
  );
}
