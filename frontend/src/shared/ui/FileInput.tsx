import type { Ref } from "react";

interface Props {
  ref: Ref<HTMLInputElement>;
  accept: string;
  testId: string;
  onFile: (file: File) => void;
}

/** The field behind a button that asks for a file: pressed through its ref, and ready for the same file once more. */
export function FileInput({ ref, accept, testId, onFile }: Props) {
  return (
    <input
      ref={ref}
      type="file"
      accept={accept}
      className="hidden"
      data-testid={testId}
      onChange={(event) => {
        const file = event.target.files?.[0];
        if (file) onFile(file);
        event.target.value = "";
      }}
    />
  );
}
