type Props = { field: string; says: string; onPress: () => void };

/** FieldLink is a suggestion in a sentence of any length; it leads to the field for it. */
export function FieldLink({ field, says, onPress }: Props) {
  return (
    <button
      type="button"
      data-open-field={field}
      className="btn btn-ghost mt-1 h-auto min-h-10 max-w-full whitespace-normal border-base-300 px-2 py-1 text-left font-normal leading-tight"
      onClick={onPress}
    >
      {says}
    </button>
  );
}
