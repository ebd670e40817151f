/** Removes a row; undo brings it back. */
export function TakeAway({ what, onTake }: { what: string; onTake: () => void }) {
  return (
    <button
      type="button"
      aria-label={`Remove ${what}`}
      title={`Remove ${what}`}
      className="h-7 rounded text-faint hover:bg-wash hover:text-ink"
      onClick={onTake}
    >
      ×
    </button>
  );
}
