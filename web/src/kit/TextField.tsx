import { Input } from '@chakra-ui/react';
import { type Ref, useId } from 'react';

interface TextFieldProps {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly ref?: Ref<HTMLInputElement>;
}

/** One line of text with its label above, chosen whole when it is come to. */
export function TextField({ label, value, onChange, ref }: TextFieldProps) {
  const field = useId();
  return (
    <label htmlFor={field}>
      {label}
      <Input
        id={field}
        ref={ref}
        mt="4px"
        bg="paper"
        borderColor="line"
        maxLength={200}
        value={value}
        onChange={(e) => onChange(e.target.value)}
        onFocus={(e) => e.target.select()}
      />
    </label>
  );
}
