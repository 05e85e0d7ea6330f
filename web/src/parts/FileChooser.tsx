/** A file from the disk, or from the phone's camera: one button, the same file may be chosen twice. */
import { Button } from '@mui/material';
import { useRef, type ReactNode } from 'react';

export function FileChooser({
  label,
  accept,
  camera = false,
  look = 'drop',
  disabled = false,
  onChoose,
  children,
}: {
  label: string;
  accept: string;
  /** on a phone: the camera at its back, at once */
  camera?: boolean;
  /** a broad field, the screen's main button, or a quiet one */
  look?: 'drop' | 'main' | 'quiet';
  disabled?: boolean;
  onChoose: (file: File) => void;
  children: ReactNode;
}) {
  const chooser = useRef<HTMLInputElement>(null);
  const open = () => chooser.current?.click();
  return (
    <>
      {look === 'main' ? (
        <Button variant="contained" disabled={disabled} onClick={open}>
          {children}
        </Button>
      ) : (
        <button type="button" className={look} disabled={disabled} onClick={open}>
          {children}
        </button>
      )}
      <input
        ref={chooser}
        type="file"
        accept={accept}
        {...(camera ? { capture: 'environment' as const } : {})}
        hidden
        aria-label={label}
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = '';
          if (file) onChoose(file);
        }}
      />
    </>
  );
}
