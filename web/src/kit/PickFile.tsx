import { Button } from '@chakra-ui/react';
import { useRef } from 'react';

interface PickFileProps {
  /** What the button says. */
  readonly says: string;
  /** What kind of file it is, for those who do not see it. */
  readonly label: string;
  readonly accept: string;
  readonly onPick: (file: File) => void;
  /** Takes several at once, in place of `onPick`. */
  readonly onPickAll?: (files: readonly File[]) => void;
}

/** A button that has a file picked; the same file can be picked again. */
export function PickFile({ says, label, accept, onPick, onPickAll }: PickFileProps) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        accept={accept}
        multiple={onPickAll !== undefined}
        hidden
        aria-label={label}
        onChange={(e) => {
          const [...files] = e.target.files ?? [];
          const [file] = files;
          if (file && onPickAll) onPickAll(files);
          else if (file) onPick(file);
          e.target.value = '';
        }}
      />
      <Button onClick={() => input.current?.click()}>{says}</Button>
    </>
  );
}
