'use client';

import { useRef, type ReactNode } from 'react';
import { Button, type ButtonProps } from '@mui/material';

/**
 * A button that asks for files. @param label what the files are, for those who do not see it
 * @param accept kinds of file, as the input element takes them
 */
export function FileChoice({
  label,
  accept,
  multiple = false,
  variant = 'outlined',
  choose,
  children,
}: {
  label: string;
  accept: string;
  multiple?: boolean;
  variant?: ButtonProps['variant'];
  choose: (files: File[]) => void;
  children: ReactNode;
}) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button variant={variant} onClick={() => input.current?.click()}>
        {children}
      </Button>
      <input
        ref={input}
        type="file"
        aria-label={label}
        accept={accept}
        multiple={multiple}
        hidden
        onChange={({ target }) => {
          const files = [...(target.files ?? [])];
          target.value = '';
          if (files.length > 0) choose(files);
        }}
      />
    </>
  );
}
