/** A broad field into which pictures are dropped, or from which they are chosen; the same ones may be chosen twice. */
import { useRef, useState, type ReactNode, type Ref } from 'react';

export function FileDrop({
  label,
  chooserRef,
  onFiles,
  children,
}: {
  label: string;
  /** for a key that opens the chooser */
  chooserRef?: Ref<HTMLButtonElement>;
  onFiles: (files: readonly File[]) => void;
  children: ReactNode;
}) {
  const chooser = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  return (
    <>
      <button
        ref={chooserRef}
        type="button"
        className={over ? 'drop over' : 'drop'}
        onClick={() => chooser.current?.click()}
        onDragOver={(e) => {
          e.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={(e) => {
          e.preventDefault();
          setOver(false);
          onFiles([...e.dataTransfer.files]);
        }}
      >
        {children}
      </button>
      <input
        ref={chooser}
        type="file"
        accept="image/*"
        multiple
        hidden
        aria-label={label}
        onChange={(e) => {
          onFiles([...(e.target.files ?? [])]);
          e.target.value = '';
        }}
      />
    </>
  );
}
