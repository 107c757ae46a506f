import type { ReactNode } from 'react';

/** A word or sign that changes the form of what is written. */
export function EditorTool({
  label,
  isOn,
  onPress,
  children,
}: {
  readonly label: string;
  readonly isOn: boolean;
  readonly onPress: () => void;
  readonly children: ReactNode;
}) {
  return (
    <button
      type="button"
      className="h-[26px] min-w-[26px] cursor-pointer rounded-[3px] px-1.5 hover:bg-base-200 aria-pressed:bg-accent aria-pressed:text-accent-content"
      aria-label={label}
      aria-pressed={isOn}
      // The text keeps its selection while a tool is pressed.
      onMouseDown={(event) => event.preventDefault()}
      onClick={onPress}
    >
      {children}
    </button>
  );
}
