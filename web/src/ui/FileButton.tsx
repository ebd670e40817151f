/** A button that asks for a file of some kinds. */
import { type ReactNode, useRef } from "react";
import { Button } from "./Button";

interface Props {
  /** What the file is, to a screen reader. */
  label: string;
  accept: string;
  look?: "solid" | "line" | "quiet";
  className?: string;
  onFile: (file: File) => void;
  children: ReactNode;
}

export function FileButton({ label, accept, look = "line", className = "", onFile, children }: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button look={look} className={className} onClick={() => input.current?.click()}>
        {children}
      </Button>
      <input
        ref={input}
        type="file"
        accept={accept}
        className="hidden"
        aria-label={label}
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          event.target.value = "";
          if (chosen) onFile(chosen);
        }}
      />
    </>
  );
}
