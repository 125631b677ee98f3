import { Ask } from './Ask';

interface RenameJobProps {
  readonly name: string;
  readonly onRename: (name: string) => void;
  readonly onClose: () => void;
}

/** Asks for a job's new name. */
export function RenameJob({ name, onRename, onClose }: RenameJobProps) {
  return <Ask title="Rename the job" label="Name" value={name} done="Rename" onDone={onRename} onClose={onClose} />;
}
