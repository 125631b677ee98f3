import { Progress, type ProgressRootProps } from '@chakra-ui/react';

interface ProgressBarProps extends ProgressRootProps {
  /** What goes on. */
  readonly label: string;
}

/** How far something is, as a bar. */
export function ProgressBar({ label, ...progress }: ProgressBarProps) {
  return (
    <Progress.Root aria-label={label} {...progress}>
      <Progress.Track h="6px" rounded="3px" bg="line" overflow="hidden">
        <Progress.Range h="100%" bg="moss" />
      </Progress.Track>
    </Progress.Root>
  );
}
