import { Button } from '@chakra-ui/react';
import { useRef } from 'react';

interface PickFileProps {
  /** What the button says. */
  readonly says: string;
  /** What kind of file it is, for those who do not see it. */
  readonly label: string;
  readonly accept: string;
  readonly onPick: (file: File) => void;
}

/** A button that has a file picked; the same file can be picked again. */
export function PickFile({ says, label, accept, onPick }: PickFileProps) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        accept={accept}
        hidden
        aria-label={label}
        onChange={(e) => {
          const [file] = e.target.files ?? [];
          if (file) onPick(file);
          e.target.value = '';
        }}
      />
      <Button onClick={() => input.current?.click()}>{says}</Button>
    </>
  );
}
